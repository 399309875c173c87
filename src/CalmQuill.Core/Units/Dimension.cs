namespace CalmQuill.Core.Units;

/// <summary>What kind of quantity something is: powers of the base quantities of the International System of Units (BIPM, SI Brochure, 9th edition, 2.3.3).</summary>
public readonly record struct Dimension(int Length, int Mass, int Time, int Current, int Temperature, int Amount, int Light)
{
    /// <summary>A plain number.</summary>
    public static Dimension None => default;

    public static Dimension operator *(Dimension one, Dimension other) =>
        new(
            one.Length + other.Length,
            one.Mass + other.Mass,
            one.Time + other.Time,
            one.Current + other.Current,
            one.Temperature + other.Temperature,
            one.Amount + other.Amount,
            one.Light + other.Light
        );

    public static Dimension operator /(Dimension one, Dimension other) => one * other.Power(-1);

    public Dimension Power(int power) =>
        new(Length * power, Mass * power, Time * power, Current * power, Temperature * power, Amount * power, Light * power);

    /// <summary>The root of that degree; null where there is none, such as the root of a length.</summary>
    public Dimension? Root(int degree)
    {
        if (Powers.Any(power => power % degree != 0))
            return null;
        return new(Length / degree, Mass / degree, Time / degree, Current / degree, Temperature / degree, Amount / degree, Light / degree);
    }

    internal IReadOnlyList<int> Powers => [Length, Mass, Time, Current, Temperature, Amount, Light];
}
