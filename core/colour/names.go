package colour

// plain are colours that anyone calls so. A colour goes by the nearest of them.
var plain = []struct{ name, hex string }{
	{"white", "#ffffff"}, {"light grey", "#c8c8c8"}, {"grey", "#808080"}, {"dark grey", "#484848"}, {"black", "#101010"},
	{"red", "#d02020"}, {"dark red", "#801818"}, {"pink", "#f0a0b0"}, {"orange", "#f08020"}, {"rust", "#b4532a"},
	{"brown", "#7a4a2b"}, {"dark brown", "#45291a"}, {"tan", "#c8a06a"}, {"sand", "#e3c88f"}, {"cream", "#f2ead2"},
	{"yellow", "#f4d820"}, {"gold", "#c89820"}, {"olive", "#757524"}, {"moss", "#5b6b33"}, {"light green", "#a0d890"},
	{"green", "#2c8c3c"}, {"dark green", "#18482a"}, {"teal", "#0f7c80"}, {"dark teal", "#0f5c63"}, {"turquoise", "#40c8c0"},
	{"light blue", "#98c8f0"}, {"blue", "#2858c0"}, {"navy", "#182850"}, {"purple", "#70389c"}, {"lilac", "#b8a0d8"}, {"magenta", "#c03088"},
}

// Name is a plain name for a colour: that of the nearest of some that anyone calls so. What
// cannot be read is its own name.
func Name(hex string) string {
	if Check(hex) != nil {
		return hex
	}
	best, name := 1e9, hex
	for _, p := range plain {
		if d := Difference(hex, p.hex); d < best {
			best, name = d, p.name
		}
	}
	return name
}
