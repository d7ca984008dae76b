package ends

import (
	"fmt"
	"math"

	"nimblebight/core/finish"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// together refuses ends that cannot be made one: too few or too many of them, or, where
// they are melted, of two materials.
func together(w knot.Work, f finish.Finish) error {
	n := len(w.Strands)
	instead, _ := finish.Get(finish.Instead(w.Strands[0].Stuff))
	no := func(format string, args ...any) error {
		return &knot.Refused{Field: "how", Why: fmt.Sprintf(format, args...), Set: instead.ID, Label: "Finish each by itself: " + instead.Name}
	}
	switch {
	case f.Together == 0:
		return nil
	case f.Form == finish.Fused && n != f.Together:
		return no("fused of %d end%s; a fuse joins %d", n, knot.Plural(n), f.Together)
	case f.Together == finish.Every && n < 2:
		return no("a bundle of %d end; it takes two or more", n)
	case f.Together > 0 && n%f.Together != 0:
		return no("%d end%s in pairs; one is left over, so choose an even number of ends", n, knot.Plural(n))
	}
	if !f.Flame {
		return nil
	}
	each := max(1, f.Together)
	for i := 0; i < n; i += each {
		a := w.Strands[i].Stuff
		for _, l := range w.Strands[i+1 : min(n, i+each)] {
			if b := l.Stuff; b.Material != a.Material && a.Material.Melts() && b.Material.Melts() {
				return no("of %s and %s; they melt at different heats, and what is melted of two materials breaks apart", a.Material, b.Material)
			}
		}
	}
	return nil
}

// fused bows two ends out to a loop and joins them at its far end, where it hangs on
// something.
func fused(w knot.Work, _ Settings, _ finish.Finish, t *knot.Tied) error {
	long := t.Endings[0].LeavesMM
	d := w.Strands[0].Diameter
	wide := math.Min(0.34*long, 14*d)
	t.Height, t.Eye = long, long-d-w.BarMM/2
	for i, l := range w.Strands {
		side := float64(2*i - 1)
		from := l.At.X
		var pts []r3.Vec
		const steps = 24
		for k := 0; k <= steps; k++ {
			// A drop: straight out of the work, round at the far end.
			u := float64(k) / steps
			a := math.Pi * u
			out := side * wide * math.Sin(a) * math.Pow(u, 0.8)
			pts = append(pts, r3.Vec{X: from*(1-u)*(1-u) + out, Y: long * (1 - math.Cos(a)) / 2 * (1 - d/2/long), Z: l.At.Z * (1 - u)})
		}
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	return nil
}

// led leads strands from where they hang to seats about a place, where they run straight
// down, and gives how far down that is.
func led(strands []knot.Strand, seats []r3.Vec) (lines [][]r3.Vec, down float64) {
	var from, to []knot.Way
	thick := 0.0
	for i, l := range strands {
		at := r3.Vec{X: l.At.X, Z: l.At.Z}
		from, to = append(from, knot.Way{At: at, Dir: r3.Vec{Y: 1}}), append(to, knot.Way{At: seats[i], Dir: r3.Vec{Y: 1}})
		thick = math.Max(thick, l.Diameter)
	}
	down = knot.Fall(from, to, thick)
	for i := range strands {
		end := r3.Vec{X: seats[i].X, Y: down, Z: seats[i].Z}
		line := []r3.Vec{from[i].At}
		if down > 0 {
			line = append(line, knot.Join(from[i].At, end, from[i].Dir, to[i].Dir)...)
		}
		lines = append(lines, line)
	}
	return lines, down
}

// pairs are the strands two by two, each pair side by side about its middle.
func pairs(w knot.Work, each func(a, b int, seats []r3.Vec)) {
	for i := 0; i+1 < len(w.Strands); i += 2 {
		a, b := w.Strands[i], w.Strands[i+1]
		x, z := (a.At.X+b.At.X)/2, (a.At.Z+b.At.Z)/2
		each(i, i+1, []r3.Vec{{X: x - a.Diameter/2, Z: z}, {X: x + b.Diameter/2, Z: z}})
	}
}

// pair leads two ends to their seats and on down, through so many mm, to their tips; the
// first carries the dome that covers both. It gives where they come to their seats.
func pair(t *knot.Tied, w knot.Work, a, b int, seats []r3.Vec, through float64) float64 {
	lines, down := led([]knot.Strand{w.Strands[a], w.Strands[b]}, seats)
	mid := r3.Scale(0.5, r3.Add(seats[0], seats[1]))
	for n, i := range []int{a, b} {
		e := &t.Endings[i]
		tip := down + through + e.LeavesMM
		e.LeavesMM, e.CutMM = tip, tip+e.MeltsMM
		end := r3.Vec{X: seats[n].X, Y: tip, Z: seats[n].Z}
		line := lines[n]
		if n == 0 { // its last bit runs in the middle, where the dome sits
			d := w.Strands[i].Diameter
			line = append(line, r3.Vec{X: seats[n].X, Y: tip - 1.1*d, Z: seats[n].Z}, r3.Vec{X: mid.X, Y: tip - 0.45*d, Z: mid.Z})
			end.X, end.Z = mid.X, mid.Z
			e.Wide = (w.Strands[a].Diameter + w.Strands[b].Diameter) / w.Strands[i].Diameter
			e.Form = string(finish.Melted)
		} else {
			e.Form = string(finish.Cut)
		}
		t.Paths = append(t.Paths, knot.Path{Points: append(line, end)})
		t.Height = math.Max(t.Height, tip)
	}
	return down
}

// melted brings two ends side by side under one dome.
func melted(w knot.Work, _ Settings, _ finish.Finish, t *knot.Tied) error {
	pairs(w, func(a, b int, seats []r3.Vec) {
		pair(t, w, a, b, seats, 0)
	})
	return nil
}

// beaded leads each pair through its bead; below it they end side by side.
func beaded(w knot.Work, set Settings, _ finish.Finish, t *knot.Tied) error {
	for i := 0; i+1 < len(w.Strands); i += 2 {
		passing, err := knot.Threads(set.Bead, w.Strands[i:i+2], "two ends")
		if err != nil {
			return err
		}
		t.Threads = append(t.Threads, knot.Thread{Strands: []int{i, i + 1}, Passing: passing})
	}
	b := *set.Bead
	// Beads sit side by side: where the pairs hang nearer they are led apart.
	var mids []float64
	pairs(w, func(_, _ int, seats []r3.Vec) { mids = append(mids, (seats[0].X+seats[1].X)/2) })
	apart := knot.Apart(mids, b.WidthMM)
	n := 0
	pairs(w, func(i, k int, seats []r3.Vec) {
		for s := range seats {
			seats[s].X += apart[n] - mids[n]
		}
		down := pair(t, w, i, k, seats, b.LengthMM)
		t.Beads = append(t.Beads, knot.BeadAt{At: r3.Vec{X: apart[n], Y: down + b.LengthMM/2, Z: (seats[0].Z + seats[1].Z) / 2}, Bead: b})
		n++
	})
	return nil
}

// bandBelow is how far below where the ends run side by side their band of a diameter and
// a half ends, in diameters.
const bandBelow = 2.3

// bound draws all ends into a bundle that is bound close below the knot.
func bound(w knot.Work, _ Settings, _ finish.Finish, t *knot.Tied) error {
	mid := r3.Vec{}
	for _, l := range w.Strands {
		mid = r3.Add(mid, r3.Scale(1/float64(len(w.Strands)), r3.Vec{X: l.At.X, Z: l.At.Z}))
	}
	seats := knot.Seats(w.Strands)
	wide, front := 0.0, 0
	for i := range seats {
		d := w.Strands[i].Diameter
		wide = math.Max(wide, 2*math.Abs(seats[i].X)+d)
		if math.Abs(seats[i].X) < math.Abs(seats[front].X)-0.01*d || math.Abs(seats[i].X) < math.Abs(seats[front].X)+0.01*d && seats[i].Z > seats[front].Z {
			front = i
		}
		seats[i] = r3.Add(mid, seats[i])
	}
	lines, down := led(w.Strands, seats)
	for i, line := range lines {
		// What hangs begins below the band.
		band := bandBelow * w.Strands[i].Diameter
		e := &t.Endings[i]
		tip := down + band + e.LeavesMM
		e.CutMM, e.LeavesMM = tip, tip
		t.Paths = append(t.Paths, knot.Path{Points: append(line, r3.Vec{X: seats[i].X, Y: down + band, Z: seats[i].Z}, r3.Vec{X: seats[i].X, Y: tip, Z: seats[i].Z})})
		t.Height = math.Max(t.Height, tip)
	}
	t.Endings[front].Wide = wide / w.Strands[front].Diameter
	t.Endings[front].BandMM = down + bandBelow*w.Strands[front].Diameter
	return nil
}
