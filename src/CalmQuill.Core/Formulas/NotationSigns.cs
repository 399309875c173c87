using static CalmQuill.Core.Formulas.SignClass;

namespace CalmQuill.Core.Formulas;

/// <summary>What signs, words and commands of a formula stand for.</summary>
internal static class NotationSigns
{
    /// <summary>Functions, which stand upright.</summary>
    public static readonly HashSet<string> Functions =
    [
        "sin",
        "cos",
        "tan",
        "cot",
        "sec",
        "csc",
        "arcsin",
        "arccos",
        "arctan",
        "asin",
        "acos",
        "atan",
        "sinh",
        "cosh",
        "tanh",
        "asinh",
        "acosh",
        "atanh",
        "exp",
        "ln",
        "lg",
        "lb",
        "log",
        "abs",
        "min",
        "max",
        "sign",
        "floor",
        "ceil",
        "round",
        "mod",
        "gcd",
        "det",
        "lim",
        "sup",
        "inf",
    ];

    /// <summary>Of them those under which stands what they run over.</summary>
    public static readonly HashSet<string> OverMany = ["lim", "min", "max", "sup", "inf"];

    /// <summary>Greek letters by their names; the capitals have a capital.</summary>
    public static readonly IReadOnlyDictionary<string, string> Greek = new Dictionary<string, string>
    {
        ["alpha"] = "α",
        ["beta"] = "β",
        ["gamma"] = "γ",
        ["delta"] = "δ",
        ["epsilon"] = "ε",
        ["varepsilon"] = "ε",
        ["zeta"] = "ζ",
        ["eta"] = "η",
        ["theta"] = "θ",
        ["vartheta"] = "ϑ",
        ["iota"] = "ι",
        ["kappa"] = "κ",
        ["lambda"] = "λ",
        ["mu"] = "μ",
        ["nu"] = "ν",
        ["xi"] = "ξ",
        ["pi"] = "π",
        ["rho"] = "ρ",
        ["varrho"] = "ϱ",
        ["sigma"] = "σ",
        ["tau"] = "τ",
        ["upsilon"] = "υ",
        ["phi"] = "φ",
        ["varphi"] = "φ",
        ["chi"] = "χ",
        ["psi"] = "ψ",
        ["omega"] = "ω",
        ["Gamma"] = "Γ",
        ["Delta"] = "Δ",
        ["Theta"] = "Θ",
        ["Lambda"] = "Λ",
        ["Xi"] = "Ξ",
        ["Pi"] = "Π",
        ["Sigma"] = "Σ",
        ["Phi"] = "Φ",
        ["Psi"] = "Ψ",
        ["Omega"] = "Ω",
    };

    /// <summary>Signs that are typed as several; the longest first.</summary>
    public static readonly (string Typed, string Sign)[] Typed =
    [
        ("<=>", "⇔"),
        ("<->", "↔"),
        ("...", "…"),
        ("<=", "≤"),
        (">=", "≥"),
        ("!=", "≠"),
        ("+-", "±"),
        ("-+", "∓"),
        ("->", "→"),
        ("=>", "⇒"),
        ("~~", "≈"),
        ("**", "·"),
        ("*", "·"),
        ("-", "−"),
        ("'", "′"),
    ];

    /// <summary>Commands that stand for one sign.</summary>
    public static readonly IReadOnlyDictionary<string, string> Commands = new Dictionary<string, string>
    {
        ["cdot"] = "·",
        ["times"] = "×",
        ["div"] = "÷",
        ["pm"] = "±",
        ["mp"] = "∓",
        ["ast"] = "∗",
        ["circ"] = "∘",
        ["le"] = "≤",
        ["leq"] = "≤",
        ["ge"] = "≥",
        ["geq"] = "≥",
        ["ne"] = "≠",
        ["neq"] = "≠",
        ["approx"] = "≈",
        ["equiv"] = "≡",
        ["sim"] = "∼",
        ["simeq"] = "≃",
        ["cong"] = "≅",
        ["propto"] = "∝",
        ["ll"] = "≪",
        ["gg"] = "≫",
        ["in"] = "∈",
        ["notin"] = "∉",
        ["ni"] = "∋",
        ["subset"] = "⊂",
        ["subseteq"] = "⊆",
        ["supset"] = "⊃",
        ["cup"] = "∪",
        ["cap"] = "∩",
        ["setminus"] = "∖",
        ["emptyset"] = "∅",
        ["varnothing"] = "∅",
        ["forall"] = "∀",
        ["exists"] = "∃",
        ["neg"] = "¬",
        ["land"] = "∧",
        ["wedge"] = "∧",
        ["lor"] = "∨",
        ["vee"] = "∨",
        ["to"] = "→",
        ["rightarrow"] = "→",
        ["leftarrow"] = "←",
        ["Rightarrow"] = "⇒",
        ["Leftarrow"] = "⇐",
        ["leftrightarrow"] = "↔",
        ["Leftrightarrow"] = "⇔",
        ["implies"] = "⇒",
        ["iff"] = "⇔",
        ["mapsto"] = "↦",
        ["perp"] = "⊥",
        ["parallel"] = "∥",
        ["angle"] = "∠",
        ["partial"] = "∂",
        ["nabla"] = "∇",
        ["infty"] = "∞",
        ["prime"] = "′",
        ["ldots"] = "…",
        ["dots"] = "…",
        ["cdots"] = "⋯",
        ["vdots"] = "⋮",
        ["hbar"] = "ℏ",
        ["ell"] = "ℓ",
        ["degree"] = "°",
        ["langle"] = "⟨",
        ["rangle"] = "⟩",
        ["lfloor"] = "⌊",
        ["rfloor"] = "⌋",
        ["lceil"] = "⌈",
        ["rceil"] = "⌉",
        ["lbrace"] = "{",
        ["rbrace"] = "}",
        ["lvert"] = "|",
        ["rvert"] = "|",
        ["vert"] = "|",
        ["Vert"] = "‖",
        ["mid"] = "∣",
        ["colon"] = ":",
        ["therefore"] = "∴",
    };

    public static readonly IReadOnlyDictionary<string, string> Bigs = new Dictionary<string, string>
    {
        ["sum"] = "∑",
        ["prod"] = "∏",
        ["product"] = "∏",
        ["int"] = "∫",
        ["integral"] = "∫",
        ["iint"] = "∬",
        ["oint"] = "∮",
    };

    /// <summary>Marks over things.</summary>
    public static readonly IReadOnlyDictionary<string, string> Accents = new Dictionary<string, string>
    {
        ["vec"] = "\u20D7",
        ["hat"] = "\u0302",
        ["bar"] = "\u0304",
        ["dot"] = "\u0307",
        ["ddot"] = "\u0308",
        ["tilde"] = "\u0303",
        ["overline"] = "‾",
    };

    /// <summary>Room, in eighteenths of the type.</summary>
    public static readonly IReadOnlyDictionary<string, int> Gaps = new Dictionary<string, int>
    {
        [","] = 3,
        [":"] = 4,
        [";"] = 5,
        ["!"] = -3,
        [" "] = 6,
        ["quad"] = 18,
        ["qquad"] = 36,
    };

    private const string Relations = "=<>≤≥≠≈≡∼≃≅∝≪≫∈∉∋⊂⊆⊃→←⇒⇐↔⇔↦⊥∥∣",
        Binaries = "+−·×÷±∓∗∘∪∩∖∧∨/:",
        Openings = "([{⟨⌊⌈",
        Closings = ")]}⟩⌋⌉",
        Punctuations = ",;";

    /// <summary>The sign that closes what another opens; empty for what opens nothing.</summary>
    public static string ClosingOf(string opening) =>
        opening.Length > 0 && Openings.IndexOf(opening, StringComparison.Ordinal) is var at and >= 0 ? Closings[at].ToString() : "";

    public static SignClass ClassOf(string sign) =>
        Relations.Contains(sign, StringComparison.Ordinal) ? Relation
        : Binaries.Contains(sign, StringComparison.Ordinal) ? Binary
        : Openings.Contains(sign, StringComparison.Ordinal) ? Opening
        : Closings.Contains(sign, StringComparison.Ordinal) ? Closing
        : Punctuations.Contains(sign, StringComparison.Ordinal) ? Punctuation
        : Ordinary;
}
