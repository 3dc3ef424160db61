package formula

import "strings"

// signs are what single characters are drawn as; relations and sums get blanks.
var signs = map[byte]string{
	'=': " = ", '<': " < ", '>': " > ", '+': " + ", '-': " − ", '*': " * ", '/': "/", '(': "(", ')': ")", '[': "[", ']': "]",
	'|': "|", ',': ", ", ';': "; ", ':': " : ", '!': "!", '\'': "′", '.': ".", '~': " ", '?': "?",
}

// commands are what commands without arguments are drawn as.
var commands = func() map[string]string {
	out := map[string]string{
		",": " ", ";": " ", ":": " ", " ": " ", "!": "", "quad": "  ", "qquad": "   ",
		"{": "{", "}": "}", "|": "‖", "%": "%", "_": "_", "&": "&", "#": "#", "$": "$",
		"ldots": "…", "dots": "…", "cdots": "⋯", "vdots": "⋮", "prime": "′", "degree": "°", "circ": "°",
		"infty": "∞", "partial": "∂", "nabla": "∇", "emptyset": "∅", "ell": "ℓ", "hbar": "ℏ", "Re": "ℜ", "Im": "ℑ", "aleph": "ℵ",
		"sum": "∑", "prod": "∏", "int": "∫", "oint": "∮", "forall": "∀", "exists": "∃", "neg": "¬", "lnot": "¬",
		"lfloor": "⌊", "rfloor": "⌋", "lceil": "⌈", "rceil": "⌉", "langle": "⟨", "rangle": "⟩", "lvert": "|", "rvert": "|",
		"lVert": "‖", "rVert": "‖", "vert": "|", "Vert": "‖", "mid": " | ", "backslash": `\`,
		"varepsilon": "ε", "vartheta": "ϑ", "varphi": "φ", "varrho": "ϱ", "varsigma": "ς", "phi": "ϕ",
	}
	for pair := range strings.FieldsSeq(`cdot·⋅ times·× div·÷ pm·± mp·∓ ast·∗ star·⋆ oplus·⊕ otimes·⊗ odot·⊙ cap·∩ cup·∪ wedge·∧ land·∧ vee·∨ lor·∨ setminus·∖
		le·≤ leq·≤ ge·≥ geq·≥ ne·≠ neq·≠ ll·≪ gg·≫ approx·≈ sim·∼ simeq·≃ equiv·≡ propto·∝ cong·≅ in·∈ notin·∉ ni·∋ subset·⊂ subseteq·⊆ supset·⊃ supseteq·⊇
		to·→ rightarrow·→ leftarrow·← leftrightarrow·↔ Rightarrow·⇒ Leftarrow·⇐ Leftrightarrow·⇔ implies·⇒ iff·⇔ mapsto·↦ longrightarrow·⟶ perp·⊥ parallel·∥ models·⊨ vdash·⊢ colon·:`) {
		name, sign, _ := strings.Cut(pair, "·")
		out[name] = " " + sign + " "
	}
	for pair := range strings.FieldsSeq(`alpha·α beta·β gamma·γ delta·δ epsilon·ϵ zeta·ζ eta·η theta·θ iota·ι kappa·κ lambda·λ mu·μ nu·ν xi·ξ omicron·ο pi·π rho·ρ
		sigma·σ tau·τ upsilon·υ chi·χ psi·ψ omega·ω Gamma·Γ Delta·Δ Theta·Θ Lambda·Λ Xi·Ξ Pi·Π Sigma·Σ Upsilon·Υ Phi·Φ Psi·Ψ Omega·Ω`) {
		name, sign, _ := strings.Cut(pair, "·")
		out[name] = sign
	}
	for name := range strings.FieldsSeq("log ln lg exp sin cos tan cot sec csc arcsin arccos arctan sinh cosh tanh max min sup inf lim det dim ker arg deg gcd Pr mod bmod") {
		out[name] = " " + strings.TrimPrefix(name, "b") + " "
	}
	return out
}()
