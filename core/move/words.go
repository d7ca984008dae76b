package move

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Names are what the words call things: the place of each of the section's places
// in the whole piece, and the name of the cord of each strand.
type Names struct {
	Places []int    // by the section's places, from the left; their own numbers where nil
	Cords  []string // by strands, own cords after those that came
}

// Words are a move in words.
type Words struct {
	Text, Detail, Gate string
	// Again is the move in short, for one that was made a few times already.
	Again string
}

// Say puts a move into words.
func (m Move) Say(names Names) Words {
	return Words{m.say(m.Text, names), m.say(m.Detail, names), m.say(m.Gate, names), m.again(names)}
}

// again is the move in short: which strand, from where, and what it passes in order.
func (m Move) again(names Names) string {
	if m.Strand < 0 {
		return "As before."
	}
	short := "as before: {me}"
	if m.From != None {
		short += ", from the {from}"
	}
	for k := range min(len(m.Passes), mostShort) {
		short += fmt.Sprintf(", {over %d}", k)
	}
	return m.say(short+".", names)
}

// mostShort is how many passings are named in short.
const mostShort = 3

// slots are what a template may hold in braces; those of passings and namings have a
// number after them.
var slots = map[string]bool{"me": false, "from": false, "to": false, "turn": false, "cord": false,
	"front": true, "over": true, "infront": true, "above": true, "face": true, "strands": true}

// cut finds the next slot of a template: what stands before it, its name and number,
// and the rest. Braces that hold no slot of a move, as {length}, are left alone.
func cut(template string) (before, name string, n int, rest string, ok bool) {
	for from := 0; ; {
		i := strings.IndexByte(template[from:], '{')
		if i < 0 {
			return template, "", 0, "", false
		}
		i += from
		j := strings.IndexByte(template[i:], '}')
		if j < 0 {
			return template, "", 0, "", false
		}
		j += i
		name := template[i+1 : j]
		if before, after, ok := strings.Cut(name, " "); ok {
			if k, err := strconv.Atoi(after); err == nil && k >= 0 {
				n, name = k, before
			}
		}
		if _, ok := slots[name]; ok {
			return template[:i], name, n, template[j+1:], true
		}
		n, from = 0, i+1
	}
}

// Slots are the slots of a template, for tests.
func Slots(template string) []string {
	var out []string
	for {
		_, name, n, rest, ok := cut(template)
		if !ok {
			return out
		}
		if slots[name] {
			name = fmt.Sprintf("%s %d", name, n)
		}
		out, template = append(out, "{"+name+"}"), rest
	}
}

func (m Move) say(template string, names Names) string {
	if template == "" {
		return ""
	}
	var b strings.Builder
	b.Grow(2 * len(template))
	for {
		before, name, n, rest, ok := cut(template)
		b.WriteString(before)
		if !ok {
			break
		}
		m.fill(&b, name, n, names)
		template = rest
	}
	said := b.String()
	return strings.ToUpper(said[:1]) + said[1:]
}

// passed are the words for under and over by the slot that asks for them.
var passed = map[string][2]string{"front": {"behind", "in front of"}, "infront": {"behind", "in front of"}, "face": {"behind", "in front"},
	"over": {"under", "over"}, "above": {"under", "over"}}

// fill writes what stands for a slot.
func (m Move) fill(b *strings.Builder, slot string, n int, names Names) {
	switch slot {
	case "me":
		m.strands(b, []int{m.Strand}, names)
	case "from":
		b.WriteString(string(m.From))
	case "to":
		b.WriteString(string(m.To))
	case "turn":
		b.WriteString(m.Turn)
	case "cord":
		if m.Strand >= 0 && m.Strand < len(names.Cords) {
			b.WriteString(names.Cords[m.Strand])
		}
	case "strands":
		m.strands(b, m.Naming[n], names)
	default:
		p := m.Passes[n]
		b.WriteString(passed[slot][b2i(p.How)])
		if slot == "front" || slot == "over" {
			b.WriteByte(' ')
			m.strands(b, p.Of, names)
		}
	}
}

func b2i(how How) int {
	if how == Over {
		return 1
	}
	return 0
}

// strands names strands by the places that they have when the move begins.
func (m Move) strands(b *strings.Builder, of []int, names Names) {
	var few [8]int
	places := few[:0]
	for _, i := range of {
		place := i
		if m.Order != nil {
			place = slices.Index(m.Order, i)
		}
		if place >= 0 && place < len(names.Places) {
			places = append(places, names.Places[place])
		} else {
			places = append(places, place+1)
		}
	}
	slices.Sort(places)
	b.WriteString("strand")
	if len(places) != 1 {
		b.WriteByte('s')
	}
	b.WriteByte(' ')
	b.WriteString(Places(places))
}

// Places writes strand places as a maker reads them: "2", "2 and 3", "2 to 4".
func Places(ps []int) string {
	run := len(ps) > 2
	for i := 1; i < len(ps); i++ {
		run = run && ps[i] == ps[i-1]+1
	}
	switch {
	case len(ps) == 0:
		return "none"
	case len(ps) == 1:
		return strconv.Itoa(ps[0])
	case run:
		return strconv.Itoa(ps[0]) + " to " + strconv.Itoa(ps[len(ps)-1])
	}
	var s []string
	for _, p := range ps[:len(ps)-1] {
		s = append(s, strconv.Itoa(p))
	}
	return strings.Join(s, ", ") + " and " + strconv.Itoa(ps[len(ps)-1])
}
