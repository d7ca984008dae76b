import { Component, type ReactNode, useEffect } from "react";
import { Redirect, Route, Switch } from "wouter";
import { useSettings } from "./api/queries";
import { Bench } from "./bench/Bench";
import { ColourSheet } from "./bench/colour/ColourSheet";
import { Sheet } from "./bench/cut/Sheet";
import { Devices } from "./devices/Devices";
import { Fist } from "./fist/Fist";
import { Guide } from "./guide/Guide";
import { BinView } from "./rack/BinView";
import { NewPiece } from "./rack/NewPiece";
import { Rack } from "./rack/Rack";
import { Lead } from "./trainer/Lead";
import { Trainer } from "./trainer/Trainer";
import { Busy } from "./ui/Busy";
import { useHeading } from "./ui/heading";
import { Nothing } from "./ui/Nothing";
import { Skip } from "./ui/Skip";
import { Vise } from "./vise/Vise";

export function App() {
  const settings = useSettings();
  useHeading();
  useEffect(() => {
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    const apply = () => {
      const theme = settings.theme === "auto" ? (dark.matches ? "night" : "day") : settings.theme;
      document.documentElement.dataset.theme = theme;
      localStorage.setItem("nimble-bight.theme", theme);
    };
    apply();
    dark.addEventListener("change", apply);
    return () => dark.removeEventListener("change", apply);
  }, [settings.theme]);
  return (
    <Guard>
      <Skip />
      <Busy />
      <Devices />
      <Switch>
        <Route path="/" component={Rack} />
        <Route path="/new" component={NewPiece} />
        <Route path="/guide" component={Guide} />
        <Route path="/bin" component={BinView} />
        <Route path="/balls" component={Fist} />
        <Route path="/trainer" component={Trainer} />
        <Route path="/trainer/:knot">{(p) => <Lead key={p.knot} knot={p.knot} />}</Route>
        <Route path="/piece/:id">{(p) => <Redirect to={`/piece/${p.id}/tie`} replace />}</Route>
        <Route path="/piece/:id/vise">{(p) => <Vise key={p.id} id={Number(p.id)} />}</Route>
        <Route path="/piece/:id/sheet">{(p) => <Sheet key={p.id} id={Number(p.id)} />}</Route>
        <Route path="/piece/:id/colours">{(p) => <ColourSheet key={p.id} id={Number(p.id)} />}</Route>
        <Route path="/piece/:id/:stage">{(p) => <Bench key={p.id} id={Number(p.id)} stage={p.stage} />}</Route>
        <Route>
          <Nothing title="Nothing hangs here" text="That page does not exist." />
        </Route>
      </Switch>
    </Guard>
  );
}

/** Guard shows a sentence instead of a blank page when the interface fails. */
class Guard extends Component<{ children: ReactNode }, { failed: boolean }> {
  state = { failed: false };
  static getDerivedStateFromError() {
    return { failed: true };
  }
  render() {
    if (this.state.failed) {
      return (
        <Nothing
          title="Something went wrong"
          text="The page failed. Every change you made was saved as you made it; load the page again."
        />
      );
    }
    return this.props.children;
  }
}
