namespace CalmQuill.Core.Formulas;

/// <summary>
/// What stands where in a formula, whatever it means: read from what was typed, and set in type from it. What it means is read from it in turn
/// (<see cref="Algebra.Meaning"/>).
/// </summary>
/// <param name="Depth">How deep things stand in each other in it; see <see cref="MostNested"/>.</param>
public abstract record Notation(int Depth)
{
    /// <summary>So deep things may stand in each other.</summary>
    public const int MostNested = 60;

    /// <summary>The longest line of a formula, in UTF-16 code units.</summary>
    public const int MostLetters = 1_000;

    public static Row Empty { get; } = new([]);

    /// <summary>What it consists of, from left to right.</summary>
    public virtual IReadOnlyList<Notation> Parts => [];

    /// <summary>What stands side by side in it: of a row its things, of anything else itself.</summary>
    public virtual IReadOnlyList<Notation> InRow => [this];

    /// <summary>A row of things; one thing alone is itself.</summary>
    public static Notation Of(IReadOnlyList<Notation> items) => items.Count == 1 ? items[0] : new Row(items);

    private static int Over(IEnumerable<Notation?> parts) => 1 + parts.Max(part => part?.Depth ?? 0);

    /// <summary>Things side by side.</summary>
    public sealed record Row(IReadOnlyList<Notation> Items) : Notation(Items.Count == 0 ? 0 : Over(Items))
    {
        public override IReadOnlyList<Notation> Parts => Items;

        public override IReadOnlyList<Notation> InRow => Items;
    }

    /// <summary>A number as it was typed, with a point.</summary>
    public sealed record Number(string Digits) : Notation(0);

    /// <summary>A letter that stands for something: leaning, unless it is a capital of another script.</summary>
    public sealed record Name(string Letter) : Notation(0);

    /// <summary>The upright name of a function, such as sin.</summary>
    public sealed record Called(string Function) : Notation(0);

    /// <summary>What a number is measured in, such as m/s²; upright.</summary>
    public sealed record Measured(string Text) : Notation(0);

    /// <summary>Words between formulas.</summary>
    public sealed record Said(string Text) : Notation(0);

    /// <summary>A sign between or beside things.</summary>
    public sealed record Sign(string Text, SignClass Class) : Notation(0)
    {
        public static Sign Plus { get; } = new("+", SignClass.Binary);

        public static Sign Minus { get; } = new("−", SignClass.Binary);

        public static Sign Times { get; } = new("·", SignClass.Binary);

        public static Sign Equal { get; } = new("=", SignClass.Relation);

        public static Sign Near { get; } = new("≈", SignClass.Relation);
    }

    /// <summary>A sign over many things: a sum, a product, an integral.</summary>
    public sealed record Big(string Text) : Notation(0)
    {
        /// <summary>Whether what it runs over stands under and over it, and not beside.</summary>
        public bool HasLimits => Text is not ("∫" or "∬" or "∮");
    }

    /// <summary>Room of so many eighteenths of the type.</summary>
    public sealed record Gap(int Eighteenths) : Notation(0);

    /// <summary>One over another; without a line between for a choice of some of many.</summary>
    public sealed record Fraction(Notation Above, Notation Below, bool HasLine = true) : Notation(Over([Above, Below]))
    {
        public override IReadOnlyList<Notation> Parts => [Above, Below];
    }

    /// <summary>A root: the square one where no other is said.</summary>
    public sealed record Root(Notation Inner, Notation? Degree) : Notation(Over([Inner, Degree]))
    {
        public override IReadOnlyList<Notation> Parts => Degree is null ? [Inner] : [Inner, Degree];
    }

    /// <summary>What is lowered and raised behind something, or stands under and over it.</summary>
    public sealed record Scripts(Notation Base, Notation? Lower, Notation? Upper) : Notation(Over([Base, Lower, Upper]))
    {
        public override IReadOnlyList<Notation> Parts => [Base, .. new[] { Lower, Upper }.OfType<Notation>()];
    }

    /// <summary>Something in brackets that are as high as it; an empty one is not seen.</summary>
    public sealed record Fence(string Open, Notation Inner, string Close) : Notation(Over([Inner]))
    {
        public override IReadOnlyList<Notation> Parts => [Inner];
    }

    /// <summary>A mark over something: a combining sign, or a line (“‾”).</summary>
    public sealed record Accent(string Mark, Notation Base) : Notation(Over([Base]))
    {
        public override IReadOnlyList<Notation> Parts => [Base];
    }

    /// <summary>Rows and columns.</summary>
    /// <param name="Rows">The rows; one may be shorter than another.</param>
    /// <param name="Centred">Whether what stands in a column is centred, or begins at its left.</param>
    public sealed record Grid(IReadOnlyList<IReadOnlyList<Notation>> Rows, bool Centred)
        : Notation(Over(Rows.SelectMany(row => row).Append(Empty)))
    {
        public override IReadOnlyList<Notation> Parts => [.. Rows.SelectMany(row => row)];
    }
}

/// <summary>What a sign does among others, which decides the room beside it (Knuth, “The TeXbook”, chapter 18).</summary>
public enum SignClass : byte
{
    Ordinary,
    Operator,
    Binary,
    Relation,
    Opening,
    Closing,
    Punctuation,
}
