package main

import (
	"encoding/json"
	"strings"
	"testing"
)

func fistOf(t *testing.T, args ...string) map[string]any {
	t.Helper()
	out, errs, code := bight(t, "", append([]string{"fist", "--json"}, args...)...)
	var found map[string]any
	if err := json.Unmarshal([]byte(out), &found); err != nil || code != 0 {
		t.Fatalf("bight fist %v: exit %d, %v, %s", args, code, err, errs)
	}
	return found
}

func TestFistPrintsABall(t *testing.T) {
	small, large := fistOf(t, "--cord", "4", "--passes", "3"), fistOf(t, "--cord", "8", "--passes", "3")
	for _, key := range []string{"cord_mm", "loop_mm", "outer_face_mm", "outer_corner_mm", "core_min_mm", "core_max_mm", "core_best_mm"} {
		a, b := small[key].(float64), large[key].(float64)
		if a <= 0 || b < 1.999*a || b > 2.001*a {
			t.Errorf("%s is %v, of twice the cord %v", key, a, b)
		}
	}
	bands := small["bands_mm"].([]any)
	sum := 0.0
	for _, v := range bands {
		sum += v.(float64)
	}
	if cord := small["cord_mm"].(float64); len(bands) != 3 || sum < cord-0.01 || sum > cord+0.01 {
		t.Errorf("%v are not the bands of %v", bands, cord)
	}
	if _, ok := small["warnings"].([]any); !ok || small["weight_g"].(float64) <= 0 {
		t.Errorf("%v", small)
	}
	codes := func(m map[string]any) string {
		var out []string
		for _, w := range m["warnings"].([]any) {
			out = append(out, w.(map[string]any)["code"].(string))
			if strings.ContainsAny(w.(map[string]any)["message"].(string), "{}") {
				t.Errorf("%v", w)
			}
		}
		return strings.Join(out, " ")
	}
	if got := codes(fistOf(t, "--cord", "4", "--passes", "3", "--core", "16")); !strings.Contains(got, "core-large") {
		t.Errorf("three passes on 16 mm: %s", got)
	}
	if n := fistOf(t, "--cord", "4", "--core", "16")["passes"].(float64); n != 4 {
		t.Errorf("on 16 mm it ties %v passes", n)
	}
	for _, mode := range []string{"two-cords", "doubled"} {
		if m := fistOf(t, "--cord", "4", "--passes", "4", "--mode", mode); m["mode"] != mode || m["cord_mm"].(float64) <= 0 {
			t.Errorf("%s: %v", mode, m)
		}
	}
	hard, soft := fistOf(t, "--passes", "4", "--core", "17", "--give", "0"), fistOf(t, "--passes", "4", "--core", "17", "--give", "0.2")
	if hard["cord_mm"].(float64) <= soft["cord_mm"].(float64) {
		t.Errorf("hard it takes %v, soft %v", hard["cord_mm"], soft["cord_mm"])
	}
}

func TestFistAnswersTheOtherWayRound(t *testing.T) {
	out, _, code := bight(t, "", "fist", "--outer", "30")
	if code != 0 || !strings.Contains(out, "passes") {
		t.Errorf("exit %d: %s", code, out)
	}
	if out, _, code := bight(t, "", "fist", "--left", "2000"); code != 0 || !strings.Contains(out, "cores that close") {
		t.Errorf("exit %d: %s", code, out)
	}
	out, _, code = bight(t, "", "fist", "--passes", "4", "--drawer", "40,16,8")
	lines := strings.Split(strings.TrimSpace(out), "\n")
	if code != 0 || len(lines) != 3 || !strings.HasPrefix(lines[0], "16 mm: ") || !strings.Contains(out, "too large") || !strings.Contains(out, "too small") {
		t.Errorf("exit %d: %s", code, out)
	}
}

func TestFistRefusesInOneSentence(t *testing.T) {
	for _, c := range []struct{ args, says string }{
		{"--passes 1", "two are the least"},
		{"--passes 9 --core 8", "take 2"},
		{"--cord 4 --passes 3 --core 220", "slide off"},
		{"--make leather --cord 3 --passes 4 --give 0.3", "leather does not flatten"},
		{"--passes 5 --mode doubled", "take 6"},
		{"--passes 4 --mode plaited", "doubled"},
		{"--passes 4 --make string", "known makes"},
		{"--passes 4 --cord -2", "thick"},
		{"--passes 4 --drawer 12,wide", "no diameter"},
		{"", "--passes"},
	} {
		_, errs, code := bight(t, "", append([]string{"fist"}, strings.Fields(c.args)...)...)
		if code != exitBad || !strings.Contains(errs, c.says) || strings.Count(strings.TrimSpace(errs), "\n") != 0 {
			t.Errorf("bight fist %s: exit %d, %q", c.args, code, errs)
		}
	}
}
