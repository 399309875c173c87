using System.Globalization;
using System.Numerics;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Writes terms down as one writes them by hand: a fraction for a division, a root sign, a minus where something is taken away.</summary>
/// <param name="decimals">Whether fractions that end are written with a point.</param>
public sealed class Wording(bool decimals)
{
    /// <summary>Numbers have so many digits at most.</summary>
    private const int MostDigits = 12;

    public Notation Of(Term term) => Fold.Up<Term, Notation>(term, one => one.Parts, Write);

    /// <summary>One side, a sign, another.</summary>
    public Row Of(Term left, Sign sign, Term right) => new([Of(left), sign, Of(right)]);

    /// <summary>A number that is rounded to six digits.</summary>
    public static Notation Near(double value)
    {
        if (!double.IsFinite(value))
            return new Said("?");
        var text = value.ToString("G6", CultureInfo.InvariantCulture);
        var power = text.IndexOf('E', StringComparison.Ordinal);
        if (power < 0)
            return Signed(text);
        return new Row([
            Signed(text[..power]),
            Sign.Times,
            new Scripts(
                new Number("10"),
                null,
                Signed(int.Parse(text[(power + 1)..], CultureInfo.InvariantCulture).ToString(CultureInfo.InvariantCulture))
            ),
        ]);
    }

    /// <summary>Something in round brackets, where there are signs in it that would run into what stands beside it.</summary>
    public static Notation Bracketed(Notation notation) => HasSigns(notation) ? new Fence("(", notation, ")") : notation;

    /// <summary>Whether somebody reckons with decimals here, and wants no fractions that never end.</summary>
    public bool IsDecimal => decimals;

    /// <summary>Whether a number is written with all its digits.</summary>
    public bool IsWhole(Exact number) => number.IsWhole || (decimals && number.Decimals is <= MostDigits);

    private static Notation Signed(string digits) =>
        digits.StartsWith('-') ? new Row([Sign.Minus, new Number(digits[1..])]) : new Number(digits);

    private Notation Write(Term term, IReadOnlyList<Notation> parts) =>
        term switch
        {
            Term.Numeral number => Write(number.Value),
            Term.Symbol symbol => Letters.Written(symbol.Name),
            Term.Measured measured => new Measured(measured.Unit.Name),
            Term.Sum sum => WriteSum(sum, parts),
            Term.Product product => WriteProduct(product.Parts, parts),
            Term.Raised raised => WritePower(raised, parts[0], parts[1]),
            Term.Called called => WriteCall(called, parts, null),
            Term.Bounded bounded => WriteBounded(bounded, parts),
            _ => Notation.Empty,
        };

    private Notation Write(Exact number)
    {
        if (number.IsWhole)
            return Signed(number.ToString());
        if (decimals && number.Decimals is { } places and <= MostDigits)
        {
            var digits = BigInteger
                .Abs(number.Over * BigInteger.Pow(10, places) / number.Under)
                .ToString(CultureInfo.InvariantCulture)
                .PadLeft(places + 1, '0');
            return Signed($"{(number.Sign < 0 ? "-" : "")}{digits[..^places]}.{digits[^places..]}");
        }

        var fraction = new Fraction(
            new Number(BigInteger.Abs(number.Over).ToString(CultureInfo.InvariantCulture)),
            new Number(number.Under.ToString(CultureInfo.InvariantCulture))
        );
        return number.Sign < 0 ? new Row([Sign.Minus, fraction]) : fraction;
    }

    private Notation WriteSum(Term sum, IReadOnlyList<Notation> parts)
    {
        // (1 + √5)/2, and not each with a fraction of its own.
        if (sum.Names.Count == 0 && sum.AsFraction() is { Under: { IsOne: false, Number: not null } under, Over: Term.Sum over })
            return new Fraction(Of(over), Of(under));
        var items = new List<Notation>();
        for (var i = 0; i < parts.Count; i++)
        {
            var inner = parts[i].InRow;
            var isNegative = inner is [Sign { Text: "−" }, ..];
            if (i > 0)
                items.Add(isNegative ? Sign.Minus : Sign.Plus);
            items.AddRange(isNegative && i > 0 ? inner.Skip(1) : inner);
        }

        return new Row(items);
    }

    private Notation WriteProduct(IReadOnlyList<Term> factors, IReadOnlyList<Notation> parts)
    {
        var share = factors[0].Number ?? Exact.One;
        var (above, below) = (new List<Notation>(), new List<Notation>());
        for (var i = factors[0].Number is null ? 0 : 1; i < factors.Count; i++)
        {
            if (factors[i] is Term.Raised { Exponent.Number.Sign: < 0 } raised)
                below.Add(Of(Terms.Power(raised.Base, -raised.Exponent)));
            else
                above.Add(parts[i]);
        }

        var size = Exact.Abs(share);
        Notation made;
        // 0.5 x, but one half of x as a fraction before it.
        if (below.Count == 0)
            made = Multiplied(size == Exact.One ? above : [Write(size), .. above]);
        else
        {
            var isPlain = IsWhole(size);
            var over = isPlain ? size : new Exact(size.Over, 1);
            var under = isPlain ? Exact.One : new Exact(size.Under, 1);
            if (over != Exact.One || above.Count == 0)
                above.Insert(0, Write(over));
            if (under != Exact.One)
                below.Insert(0, Write(under));
            made = new Fraction(Multiplied(above, true), Multiplied(below, true));
        }

        return share.Sign < 0 ? new Row([Sign.Minus, .. made.InRow]) : made;
    }

    /// <summary>Factors side by side, with a dot where two numbers would run together.</summary>
    private static Notation Multiplied(List<Notation> factors, bool mayBeBare = false)
    {
        if (factors.Count == 1)
            return mayBeBare || !HasSigns(factors[0]) ? factors[0] : new Fence("(", factors[0], ")");
        var items = new List<Notation>();
        foreach (var factor in factors)
        {
            var inner = HasSigns(factor) ? new Fence("(", factor, ")") : factor;
            var first = inner is Row { Items: [var begin, ..] } ? begin : inner;
            if (items.Count > 0 && first is Number or Scripts { Base: Number } && items[^1] is not Fraction)
                items.Add(Sign.Times);
            else if (items.Count > 0 && first is Fraction && items[^1] is Number or Fraction)
                items.Add(Sign.Times);
            items.AddRange(inner.InRow);
        }

        return Notation.Of(items);
    }

    private static bool HasSigns(Notation notation) =>
        notation is Row row && row.Items.Any(item => item is Sign { Class: SignClass.Binary, Text: "+" or "−" or "±" });

    private Notation WritePower(Term.Raised raised, Notation of, Notation exponent)
    {
        if (raised.Exponent.Number is { } power)
        {
            if (power.Sign < 0)
                return new Fraction(new Number("1"), Of(Terms.Power(raised.Base, Term.Of(-power))));
            if (power.Over.IsOne && !power.IsWhole && power.Under < 10)
                return new Root(of, power.Under == 2 ? null : Write(new Exact(power.Under, 1)));
            // sin²x
            if (power.IsWhole && raised.Base is Term.Called { Function: not ("abs" or "factorial" or "floor" or "ceil") } called)
                return WriteCall(called, [.. called.Parts.Select(Of)], exponent);
        }

        return new Scripts(
            of is Number or Name or Measured or Fence ? of
                : of is Scripts { Upper: null } ? of
                : new Fence("(", of, ")"),
            null,
            exponent
        );
    }

    private static Notation WriteCall(Term.Called called, IReadOnlyList<Notation> of, Notation? power)
    {
        if (called.Function == "abs")
            return new Fence("|", of[0], "|");
        if (called.Function == "factorial")
            return new Row([Bracketed(of[0]), new Sign("!", SignClass.Ordinary)]);
        var name = called.Function switch
        {
            "asin" => "arcsin",
            "acos" => "arccos",
            "atan" => "arctan",
            var own => own,
        };
        Notation head = new Called(name);
        var isLog = called.Function == "log" && of.Count == 2;
        if (power is not null || isLog)
            head = new Scripts(head, isLog ? of[1] : null, power);
        if (isLog || of.Count == 1)
            return new Row([head, of[0] is Name or Number ? of[0] : new Fence("(", of[0], ")")]);
        return new Row([head, new Fence("(", new Row([of[0], new Sign(",", SignClass.Punctuation), of[1]]), ")")]);
    }

    private static Row WriteBounded(Term.Bounded bounded, IReadOnlyList<Notation> parts)
    {
        var over = Letters.Written(bounded.Over);
        return bounded.Sign == "∫"
            ? new Row([new Scripts(new Big("∫"), parts[1], parts[2]), Bracketed(parts[0]), new Gap(3), new Name("d"), over])
            : new Row([new Scripts(new Big(bounded.Sign), new Row([over, Sign.Equal, parts[1]]), parts[2]), Bracketed(parts[0])]);
    }
}
