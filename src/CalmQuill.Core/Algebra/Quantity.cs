using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;

namespace CalmQuill.Core.Algebra;

/// <summary>How much of something: in the coherent unit of its dimension.</summary>
/// <param name="Value">The number.</param>
/// <param name="Exact">The number exactly, as long as it is a fraction; null where it is only near.</param>
/// <param name="Dimension">Of what kind.</param>
public readonly record struct Quantity(double Value, Exact? Exact, Dimension Dimension)
{
    public static Quantity Of(Exact number) => new(number.ToDouble(), number, Dimension.None);

    public static Quantity Near(double number) => new(number, null, Dimension.None);

    public static Quantity Of(Unit unit) => new(unit.Factor.ToDouble(), unit.Factor, unit.Dimension);

    /// <exception cref="FormulaException">A length and a time have no sum.</exception>
    public static Quantity operator +(Quantity one, Quantity other) =>
        one.Dimension == other.Dimension
            ? new(one.Value + other.Value, Kept(one.Exact, other.Exact, (a, b) => a + b), one.Dimension)
            : throw new FormulaException(
                $"{UnitTable.Of(one.Dimension).Name} and {UnitTable.Of(other.Dimension).Name} cannot be added.",
                0
            );

    public static Quantity operator *(Quantity one, Quantity other) =>
        new(one.Value * other.Value, Kept(one.Exact, other.Exact, (a, b) => a * b), one.Dimension * other.Dimension);

    /// <exception cref="FormulaException">The power is none that such a thing has.</exception>
    public Quantity Power(Quantity power)
    {
        if (power.Dimension != Dimension.None)
            throw new FormulaException($"A power is a plain number.", 0);
        if (Value == 0 && power.Value < 0)
            throw new FormulaException($"Here is divided by 0.", 0);
        var value = Functions.Power(Value, power.Value);
        if (power.Exact is not { } exact || exact.Over.GetBitLength() > 16 || exact.Under > 16)
            return Dimension == Dimension.None ? Near(value) : throw new FormulaException($"A power is a plain number.", 0);
        var dimension =
            Dimension.Power((int)exact.Over).Root((int)exact.Under)
            ?? throw new FormulaException($"There is no such root of {UnitTable.Of(Dimension).Name}.", 0);
        return new(value, Kept(Exact, exact, (of, by) => of.Power((int)by.Over).Root((int)by.Under)), dimension);
    }

    private static Exact? Kept(Exact? one, Exact? other, Func<Exact, Exact, Exact?> make)
    {
        if (one is not { } a || other is not { } b)
            return null;
        try
        {
            return make(a, b);
        }
        catch (OverflowException)
        {
            return null;
        }
    }
}
