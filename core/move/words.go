package move

import (
	"fmt"
	"regexp"
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
}

// Say puts a move into words.
func (m Move) Say(names Names) Words {
	return Words{m.say(m.Text, names), m.say(m.Detail, names), m.say(m.Gate, names)}
}

var slot = regexp.MustCompile(`\{(me|from|to|turn|cord|front|over|infront|above|face|strands)(?: (\d))?\}`)

// Slots are the slots of a template, for tests.
func Slots(template string) []string { return slot.FindAllString(template, -1) }

func (m Move) say(template string, names Names) string {
	if template == "" {
		return ""
	}
	said := slot.ReplaceAllStringFunc(template, func(s string) string {
		part := slot.FindStringSubmatch(s)
		n, _ := strconv.Atoi(part[2]) // digits, or none for the first
		switch part[1] {
		case "me":
			return m.strands([]int{m.Strand}, names)
		case "from":
			return string(m.From)
		case "to":
			return string(m.To)
		case "turn":
			return m.Turn
		case "cord":
			if m.Strand >= 0 && m.Strand < len(names.Cords) {
				return names.Cords[m.Strand]
			}
			return ""
		case "strands":
			return m.strands(m.Naming[n], names)
		}
		p := m.Passes[n]
		word := map[string][2]string{"front": {"behind", "in front of"}, "infront": {"behind", "in front of"}, "face": {"behind", "in front"},
			"over": {"under", "over"}, "above": {"under", "over"}}[part[1]][b2i(p.How)]
		if part[1] == "front" || part[1] == "over" {
			return word + " " + m.strands(p.Of, names)
		}
		return word
	})
	return strings.ToUpper(said[:1]) + said[1:]
}

func b2i(how How) int {
	if how == Over {
		return 1
	}
	return 0
}

// strands names strands by the places that they have when the move begins.
func (m Move) strands(of []int, names Names) string {
	var places []int
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
	s := "s"
	if len(places) == 1 {
		s = ""
	}
	return fmt.Sprintf("strand%s %s", s, Places(places))
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
		return fmt.Sprint(ps[0])
	case run:
		return fmt.Sprintf("%d to %d", ps[0], ps[len(ps)-1])
	}
	var s []string
	for _, p := range ps[:len(ps)-1] {
		s = append(s, fmt.Sprint(p))
	}
	return strings.Join(s, ", ") + " and " + fmt.Sprint(ps[len(ps)-1])
}
