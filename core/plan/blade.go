package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/caution"
	"nimblebight/core/knot"
)

// blade warns of a start that lets something hard swing into the path of a blade, and
// of one that stands stiff. What hangs by bare cord swings about the hole on that
// cord: it stays out of the path while there is less of it than to the path. Cord that
// must bend over the edge of the handle needs half of its thickness and two diameters
// for that, or the knot stands out from the hole.
func (w *walk) blade() {
	path := w.d.Purpose.BladeMM
	if path == 0 || len(w.plan.Sections) == 0 {
		return
	}
	first := slices.IndexFunc(w.plan.Sections, func(s Section) bool {
		k, _ := knot.Get(s.Do)
		return w.knotted[s.Index] && !k.Mounts
	})
	if first < 0 {
		return
	}
	s := w.plan.Sections[first]
	bare, d := s.TopMM, 0.0
	for _, l := range w.legs {
		d = math.Max(d, w.thick(l))
	}
	least := w.d.Purpose.HangsOn.DeepMM()/2 + 2*d
	name := strings.ReplaceAll(s.Do, "-", " ")
	switch most := path - d; {
	case least > most:
		w.say("blade-too-near", first, nil, "The blade's path is {%.0fmm} from the hole; cord that bends over a handle {%.0fmm} thick needs {%.0fmm}, so whatever hangs there can reach the path. Take thinner cord, or close the blade over a bare loop.", path, w.d.Purpose.HangsOn.DeepMM(), least+d)
	case bare > most:
		w.say("swings-into-the-blade", first, w.bareFix(first, bare, most), "The %s begins {%.0fmm} from the hole and can swing into the blade's path at {%.0fmm}; it should begin within {%.0fmm}.", name, bare, path, most)
	case bare < least:
		w.say("stands-stiff", first, w.bareFix(first, bare, math.Ceil(least)), "The %s begins {%.0fmm} from the hole and stands stiff: over a handle {%.0fmm} thick the cord needs {%.0fmm} to bend.", name, bare, w.d.Purpose.HangsOn.DeepMM(), least)
	}
	w.plan.Checks = append(w.plan.Checks, Check{"blade", first, "Open and close the blade: nothing hard reaches its path, and the lanyard bends over the handle."})
	w.calls = append(w.calls, caution.Call{ID: caution.Blade, Section: first})
}

// bareFix makes what is bare above a section come to so much: by the bare length
// there, or by one more.
func (w *walk) bareFix(section int, is, want float64) *Fix {
	want = math.Floor(want)
	above := section - 1
	if above >= 0 && w.written[above].Do == w.written[section].Do {
		return nil
	}
	if above > 0 {
		if k, _ := knot.Get(w.written[above].Do); k.Bare {
			v, _ := lengthOf(w.written[above], k)
			if mm := v + want - is; mm >= 1 {
				return &Fix{Label: fmt.Sprintf("Leave %g mm bare", math.Round(mm)), Set: []Set{{Path: fmt.Sprintf("sequence[%d].length_mm", above), Value: math.Round(mm)}}}
			}
			return nil
		}
	}
	if want <= is {
		return nil
	}
	bare, ok := knot.That(func(k knot.Knot) bool { return k.Bare })
	if !ok || w.into != nil {
		return nil
	}
	s, err := knot.New(bare.ID)
	if err != nil {
		return nil
	}
	s = s.Put("length_mm", math.Ceil(want-is))
	return &Fix{Label: fmt.Sprintf("Leave %g mm bare above it", math.Ceil(want-is)), Set: []Set{{Path: "sequence", Value: slices.Insert(slices.Clone(w.written), section, s)}}}
}

// lengthOf is the length that a section says, mm.
func lengthOf(s knot.Section, k knot.Knot) (float64, bool) {
	f, ok := k.Field("length_mm")
	if !ok {
		return 0, false
	}
	v, ok := s.Value(f)
	mm, _ := v.(float64)
	return mm, ok
}
