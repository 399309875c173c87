using System.Globalization;
using System.Numerics;

namespace CalmQuill.Core.Numbers;

/// <summary>A fraction of whole numbers in lowest terms, of any size up to <see cref="MostBits"/>.</summary>
public readonly struct Exact : IEquatable<Exact>, IComparable<Exact>
{
    /// <summary>So large its numbers may become.</summary>
    public const int MostBits = 4_000;

    private readonly BigInteger under;

    public Exact(BigInteger over, BigInteger under)
    {
        if (under.IsZero)
            throw new DivideByZeroException();
        var common = BigInteger.GreatestCommonDivisor(over, under) * (under.Sign < 0 ? -1 : 1);
        (Over, this.under) = (over / common, under / common);
        if (Over.GetBitLength() > MostBits || this.under.GetBitLength() > MostBits)
            throw new OverflowException();
    }

    public static Exact Zero => default;

    public static Exact One => 1;

    public BigInteger Over { get; }

    /// <summary>Above 0.</summary>
    public BigInteger Under => under.IsZero ? BigInteger.One : under;

    public bool IsWhole => Under.IsOne;

    public bool IsZero => Over.IsZero;

    public int Sign => Over.Sign;

    public static implicit operator Exact(int whole) => new(whole, 1);

    public static Exact operator +(Exact one, Exact other) => new(one.Over * other.Under + other.Over * one.Under, one.Under * other.Under);

    public static Exact operator -(Exact one, Exact other) => one + -other;

    public static Exact operator -(Exact one) => new(-one.Over, one.Under);

    public static Exact operator *(Exact one, Exact other) => new(one.Over * other.Over, one.Under * other.Under);

    /// <exception cref="DivideByZeroException">The other is 0.</exception>
    public static Exact operator /(Exact one, Exact other) => new(one.Over * other.Under, one.Under * other.Over);

    public static bool operator ==(Exact one, Exact other) => one.Equals(other);

    public static bool operator !=(Exact one, Exact other) => !one.Equals(other);

    public static bool operator <(Exact one, Exact other) => one.CompareTo(other) < 0;

    public static bool operator >(Exact one, Exact other) => one.CompareTo(other) > 0;

    public static bool operator <=(Exact one, Exact other) => one.CompareTo(other) <= 0;

    public static bool operator >=(Exact one, Exact other) => one.CompareTo(other) >= 0;

    public static Exact Abs(Exact of) => of.Sign < 0 ? -of : of;

    /// <summary>A whole power.</summary>
    /// <exception cref="OverflowException">It is too large.</exception>
    /// <exception cref="DivideByZeroException">It is a negative power of 0.</exception>
    public Exact Power(int power)
    {
        var (over, below) = power < 0 ? (Under * (Over.Sign < 0 ? -1 : 1), BigInteger.Abs(Over)) : (Over, Under);
        var times = Math.Abs((long)power);
        if (
            Math.Max(over.GetBitLength(), below.GetBitLength()) > 1
            && times * Math.Max(over.GetBitLength() - 1, below.GetBitLength() - 1) > MostBits
        )
            throw new OverflowException();
        return times > int.MaxValue
            ? throw new OverflowException()
            : new Exact(BigInteger.Pow(over, (int)times), BigInteger.Pow(below, (int)times));
    }

    /// <summary>The root of that degree, where it is a fraction; null where it is none.</summary>
    public Exact? Root(int degree)
    {
        if (Sign < 0 && degree % 2 == 0)
            return null;
        return Root(BigInteger.Abs(Over), degree) is { } over && Root(Under, degree) is { } below
            ? new Exact(over * Over.Sign, below)
            : null;
    }

    /// <summary>Reads a number with a decimal point.</summary>
    public static Exact Parse(string digits)
    {
        var point = digits.IndexOf('.', StringComparison.Ordinal);
        var whole = BigInteger.Parse(point < 0 ? digits : digits.Remove(point, 1), CultureInfo.InvariantCulture);
        return new Exact(whole, point < 0 ? 1 : BigInteger.Pow(10, digits.Length - point - 1));
    }

    /// <summary>The nearest floating-point number.</summary>
    public double ToDouble()
    {
        if (Over.IsZero)
            return 0;
        // Both are shortened alike, so that neither leaves the range.
        var shift = (int)Math.Max(0, Math.Max(Over.GetBitLength(), Under.GetBitLength()) - 1_000);
        return (double)(Over >> shift) / (double)(Under >> shift) is var near && double.IsFinite(near) && near != 0
            ? near
            : Math.Exp(BigInteger.Log(BigInteger.Abs(Over)) - BigInteger.Log(Under)) * Over.Sign;
    }

    /// <summary>How many decimals it has; null where they never end.</summary>
    public int? Decimals
    {
        get
        {
            var (rest, twos, fives) = (Under, 0, 0);
            for (; rest.IsEven; twos++)
                rest /= 2;
            for (; rest % 5 == 0; fives++)
                rest /= 5;
            return rest.IsOne ? Math.Max(twos, fives) : null;
        }
    }

    public int CompareTo(Exact other) => (Over * other.Under).CompareTo(other.Over * Under);

    public bool Equals(Exact other) => Over == other.Over && Under == other.Under;

    public override bool Equals(object? obj) => obj is Exact other && Equals(other);

    public override int GetHashCode() => HashCode.Combine(Over, Under);

    public override string ToString() =>
        IsWhole ? Over.ToString(CultureInfo.InvariantCulture) : string.Create(CultureInfo.InvariantCulture, $"{Over}/{Under}");

    /// <summary>By halving what it lies between.</summary>
    private static BigInteger? Root(BigInteger of, int degree)
    {
        if (of.IsZero || of.IsOne)
            return of;
        BigInteger low = 1,
            high = BigInteger.One << (int)(of.GetBitLength() / degree + 1);
        while (low < high)
        {
            var middle = (low + high) >> 1;
            if (BigInteger.Pow(middle, degree) < of)
                low = middle + 1;
            else
                high = middle;
        }

        return BigInteger.Pow(low, degree) == of ? low : null;
    }
}
