import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/spline-sans-mono";
import "./style.css";
import { focusManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";

const client = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 30_000, retry: 1, refetchOnWindowFocus: false, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});
focusManager.setFocused(true); // saves are tried again behind another window too

// The light of last time, before the settings are here, so that nothing flashes.
const theme = localStorage.getItem("nimble-bight.theme");
if (theme) document.documentElement.dataset.theme = theme;

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  );
}
