using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Algebra;

/// <summary>
/// What a formula means, in a form in which equal things look equal: sums and products are flat, their parts stand in one order, numbers are reckoned, and like
/// things are taken together. Brackets that are multiplied stay as they are until <see cref="Expansion"/> opens them.
/// </summary>
public abstract class Term : IEquatable<Term>
{
    /// <summary>The most parts that a term may have in all.</summary>
    public const int MostParts = 3_000;

    /// <summary>How deep terms may stand in each other.</summary>
    public const int MostNested = 200;

    private Term(string key, IReadOnlyList<Term> parts)
    {
        (Key, Parts) = (key, parts);
        var (count, depth) = (1, 0);
        foreach (var part in parts)
            (count, depth) = (count + part.Count, Math.Max(depth, part.Depth + 1));
        (Count, Depth) = (count, depth);
        if (count > MostParts || depth > MostNested || key.Length > MostParts * 8)
            throw new FormulaException($"This becomes too long to be worked out.", 0);
    }

    /// <summary>Equal for equal terms, and for no others.</summary>
    public string Key { get; }

    public IReadOnlyList<Term> Parts { get; }

    private int Count { get; }

    private int Depth { get; }

    public static Term Zero { get; } = new Numeral(0);

    public static Term One { get; } = new Numeral(1);

    public static Term Of(Exact number) => new Numeral(number);

    public static implicit operator Term(int whole) => new Numeral(whole);

    public static Term operator +(Term one, Term other) => Terms.Add([one, other]);

    public static Term operator -(Term one, Term other) => Terms.Add([one, -other]);

    public static Term operator -(Term one) => Terms.Multiply([-1, one]);

    public static Term operator *(Term one, Term other) => Terms.Multiply([one, other]);

    public static Term operator /(Term one, Term other) => Terms.Multiply([one, Terms.Power(other, -1)]);

    /// <summary>The exact number that it is; null for anything else.</summary>
    public Exact? Number => this is Numeral numeral ? numeral.Value : null;

    public bool IsZero => Number is { IsZero: true };

    public bool IsOne => Number is { } number && number == Exact.One;

    /// <summary>Whether a letter occurs in it.</summary>
    public bool Has(string name) => Names.Contains(name);

    /// <summary>The letters in it that stand for something, but for π and e, and for those that a sum in it runs over; ascending.</summary>
    public IReadOnlySet<string> Names =>
        names ??= new SortedSet<string>(
            this switch
            {
                Symbol { IsNumber: false } symbol => [symbol.Name],
                Bounded bounded => Parts[0].Names.Where(name => name != bounded.Over).Concat(Parts.Skip(1).SelectMany(part => part.Names)),
                _ => Parts.SelectMany(part => part.Names),
            },
            StringComparer.Ordinal
        );

    private IReadOnlySet<string>? names;

    public bool Equals(Term? other) => other is not null && Key == other.Key;

    public override bool Equals(object? obj) => Equals(obj as Term);

    public override int GetHashCode() => Key.GetHashCode(StringComparison.Ordinal);

    public sealed override string ToString() => Key;

    /// <summary>A number.</summary>
    public sealed class Numeral(Exact value) : Term(value.ToString(), [])
    {
        public Exact Value => value;
    }

    /// <summary>A letter that stands for something; <c>π</c> and <c>e</c> for what they always do.</summary>
    public sealed class Symbol(string name) : Term(name, [])
    {
        public string Name { get; } = name;

        public bool IsNumber => Name is "π" or "e";
    }

    /// <summary>What something is measured in.</summary>
    public sealed class Measured(Units.Unit unit) : Term($"[{unit.Name}]", [])
    {
        public Units.Unit Unit => unit;
    }

    /// <summary>At least two, none of them a sum; made by <see cref="Terms.Add"/>.</summary>
    public sealed class Sum(IReadOnlyList<Term> items) : Term($"({string.Join('+', items.Select(item => item.Key))})", items);

    /// <summary>At least two, none of them a product; a number stands first; made by <see cref="Terms.Multiply"/>.</summary>
    public sealed class Product(IReadOnlyList<Term> items) : Term($"({string.Join('*', items.Select(item => item.Key))})", items);

    /// <summary>Made by <see cref="Terms.Power"/>.</summary>
    public sealed class Raised(Term of, Term exponent) : Term($"({of.Key}^{exponent.Key})", [of, exponent])
    {
        public Term Base => of;

        public Term Exponent => exponent;
    }

    /// <summary>A function of one or two terms, by its name.</summary>
    public sealed class Called(string function, IReadOnlyList<Term> of)
        : Term($"{function}({string.Join(',', of.Select(one => one.Key))})", of)
    {
        public string Function => function;
    }

    /// <summary>A sum, product or integral of something over a letter, from one bound to another: its parts.</summary>
    /// <param name="sign">∑, ∏ or ∫.</param>
    /// <param name="over">The letter.</param>
    /// <param name="of">What is summed up.</param>
    /// <param name="from">Where it begins.</param>
    /// <param name="to">Where it ends.</param>
    public sealed class Bounded(string sign, string over, Term of, Term from, Term to)
        : Term($"{sign}{over}({of.Key},{from.Key},{to.Key})", [of, from, to])
    {
        public string Sign => sign;

        public string Over => over;
    }
}
