using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>What a thing in a formula was read as.</summary>
/// <param name="Term">What it means by itself; null where it means something only among others, as a plus does.</param>
internal sealed record Read(Term? Term)
{
    /// <summary>Several terms, parted by commas.</summary>
    public IReadOnlyList<Term> List { get; init; } = Term is null ? [] : [Term];

    /// <summary>What is lowered and raised behind it.</summary>
    public Term? Lower { get; init; }

    /// <inheritdoc cref="Lower"/>
    public Term? Upper { get; init; }

    /// <summary>What stands in the bracket that is raised.</summary>
    public Term? Base { get; init; }

    /// <summary>The letter that a sum runs over, where it is said under it.</summary>
    public string? Over { get; init; }

    /// <exception cref="FormulaException">It means nothing here.</exception>
    public static Read Of(Notation node, IReadOnlyList<Read> parts, bool degrees) =>
        node switch
        {
            Row row => new RowReader(row.Items, parts, degrees).Read(),
            Number number => new Read(Term.Of(Terms.Reckoned(() => Exact.Parse(number.Digits)))),
            Fraction { HasLine: true } => new Read(Only(parts[0]) / Only(parts[1])),
            Root { Degree: null } => new Read(Terms.Root(Only(parts[0]))),
            Root => new Read(Terms.Power(Only(parts[0]), Terms.Power(Only(parts[1]), -1))),
            Fence { Open: "|", Close: "|" } => new Read(Terms.Call("abs", Only(parts[0]))),
            Fence { Open: "⌊", Close: "⌋" } => new Read(Terms.Call("floor", Only(parts[0]))),
            Fence { Open: "⌈", Close: "⌉" } => new Read(Terms.Call("ceil", Only(parts[0]))),
            Fence { Open: "(" or "[" or "{", Close: ")" or "]" or "}" } => parts[0],
            Measured measured => new Read(
                new Term.Measured(
                    UnitReader.Read(measured.Text) ?? throw new FormulaException($"Nothing is known of the unit “{measured.Text}”.", 0)
                )
            ),
            Scripts scripts when Letters.NameOf(scripts) is { } name => new Read(new Term.Symbol(name)),
            Scripts scripts => OfScripts(scripts, parts),
            Name name => new Read(name.Letter is "ℝ" ? null : new Term.Symbol(name.Letter)),
            Sign { Text: "∞" } => throw new FormulaException($"Nothing is worked out with infinity here.", 0),
            Accent accent when Letters.NameOf(accent.Base) is { } name => new Read(new Term.Symbol(name)),
            Sign or Called or Big or Gap or Said => new Read((Term?)null),
            _ => throw new FormulaException($"This is shown, but not worked out.", 0),
        };

    private static Read OfScripts(Scripts scripts, IReadOnlyList<Read> parts)
    {
        var lower = scripts.Lower is null ? null : parts[1];
        var upper = scripts.Upper is null ? null : parts[^1];
        if (scripts.Base is Called or Big)
        {
            // k = 1 under a sum says which letter it runs over.
            var over = scripts is { Base: Big, Lower: Row { Items: [var letter, Sign { Text: "=" }, ..] } } ? Letters.NameOf(letter) : null;
            return new Read((Term?)null)
            {
                Lower =
                    lower is null ? null
                    : over is null ? Only(lower)
                    : lower.List[^1],
                Upper = upper is null ? null : Only(upper),
                Over = over,
            };
        }

        if (Letters.NameOf(scripts with { Upper = null }) is { } name && upper is not null)
            return new Read(Terms.Power(new Term.Symbol(name), Only(upper)));
        return upper is not null && lower is null
            ? new Read(Terms.Power(Only(parts[0]), Only(upper)))
            {
                Base = scripts.Base is Fence ? Only(parts[0]) : null,
                Upper = Only(upper),
            }
            : throw new FormulaException($"This is shown, but not worked out.", 0);
    }

    private static Term Only(Read read) =>
        read is { Term: { } term, List.Count: 1 } ? term : throw new FormulaException($"Something is missing here, or too much.", 0);
}
