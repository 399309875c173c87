using CalmQuill.Core.Numbers;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>The order in which parts of terms stand: as one writes them.</summary>
internal sealed class TermOrder : IComparer<Term>
{
    private readonly bool isOfSums;

    private TermOrder(bool isOfSums) => this.isOfSums = isOfSums;

    /// <summary>Higher powers first, then by letters.</summary>
    public static TermOrder Sums { get; } = new(true);

    /// <summary>Roots of numbers, then letters in their order, then brackets, then functions.</summary>
    public static TermOrder Products { get; } = new(false);

    public int Compare(Term? x, Term? y)
    {
        var order = isOfSums ? Degree(y!).CompareTo(Degree(x!)) : Place(x!).CompareTo(Place(y!));
        return order != 0 ? order : string.CompareOrdinal(KeyOf(x!), KeyOf(y!));
    }

    /// <summary>The sum of the powers in it.</summary>
    private static Exact Degree(Term term) =>
        term switch
        {
            Product product => product.Parts.Aggregate(Exact.Zero, (sum, item) => sum + Degree(item)),
            Raised { Exponent: Numeral exponent, Base: Symbol { IsNumber: false } } => exponent.Value,
            Symbol { IsNumber: false } => Exact.One,
            _ => Exact.Zero,
        };

    private static int Place(Term term) =>
        term switch
        {
            Numeral => 0,
            Raised { Base: Numeral } => 1,
            Symbol { IsNumber: true } => 2,
            Raised { Base: Symbol { IsNumber: true }, Exponent: Numeral } => 2,
            Symbol => 3,
            Raised { Base: Symbol { IsNumber: false } } => 3,
            Raised { Base: Symbol } => 5,
            Sum => 4,
            Raised { Base: Sum } => 4,
            Measured => 9,
            Raised { Base: Measured } => 9,
            _ => 6,
        };

    /// <summary>Without the number before it.</summary>
    private static string KeyOf(Term term) =>
        term is Product { Parts: [Numeral, var next, ..] } ? next.Key.TrimStart('(') : term.Key.TrimStart('(');
}
