using System.Numerics;
using CalmQuill.Core.Numbers;

namespace CalmQuill.Core.Algebra;

/// <summary>A polynomial with fractions before its powers.</summary>
/// <param name="Shares">What stands before each power, from 0 on; the last one is not 0, unless it is the only one.</param>
public sealed record ExactPolynomial(IReadOnlyList<Exact> Shares)
{
    public int Degree => Shares.Count - 1;

    private bool IsZero => Shares is [var only] && only.IsZero;

    private ExactPolynomial Derivative => Degree == 0 ? new([Exact.Zero]) : new([.. Shares.Skip(1).Select((share, i) => share * (i + 1))]);

    /// <summary>The same of a letter.</summary>
    public Polynomial In(string letter) => new(letter, [.. Shares.Select(Term.Of)]);

    /// <summary>Horner's scheme.</summary>
    public Exact At(Exact x) => Shares.Reverse().Aggregate(Exact.Zero, (sum, share) => sum * x + share);

    /// <summary>What is left when it is divided by x − root, of one of its roots.</summary>
    public ExactPolynomial Without(Exact root) => Divided(new([-root, Exact.One])).Quotient;

    /// <summary>Its real roots that are fractions, each as often as it is one, ascending; what is left is without them.</summary>
    public (IReadOnlyList<Exact> Roots, ExactPolynomial Left) FractionRoots()
    {
        var (found, rest) = (new List<Exact>(), this);
        foreach (var near in RealRoots())
        {
            if (Nearby(near) is not { } root)
                continue;
            while (rest.Degree > 0 && rest.At(root).IsZero)
            {
                found.Add(root);
                rest = rest.Without(root);
            }
        }

        found.Sort();
        return (found, rest);
    }

    /// <summary>Its real roots by numbers, each once, ascending.</summary>
    public IReadOnlyList<double> RealRoots()
    {
        // Roots that are one several times would be found badly; they are the same without that.
        var common = Common(this, Derivative);
        var single = common.Degree > 0 ? Divided(common).Quotient : this;
        return Roots.Real([.. single.Shares.Select(share => share.ToDouble())]);
    }

    /// <summary>Whole numbers up to here are known for certain of a floating-point number near them.</summary>
    private const double MostNear = 1e14;

    /// <summary>The fraction near a number whose denominator divides what stands before the highest power; null where none is a root.</summary>
    private Exact? Nearby(double near)
    {
        var whole = Shares.Aggregate(
            BigInteger.One,
            (all, share) => all * share.Under / BigInteger.GreatestCommonDivisor(all, share.Under)
        );
        var leading = BigInteger.Abs((Shares[^1] * new Exact(whole, 1)).Over);
        if (Math.Abs(near) * (double)leading > MostNear)
            return null;
        var root = new Exact(new BigInteger(Math.Round(near * (double)leading)), leading);
        return At(root).IsZero ? root : null;
    }

    /// <summary>What divides both, by dividing on with what is left over (Euclid).</summary>
    public static ExactPolynomial Common(ExactPolynomial one, ExactPolynomial other)
    {
        while (!other.IsZero)
            (one, other) = (other, one.Divided(other).Left.Monic());
        return one.Monic();
    }

    private ExactPolynomial Monic() => IsZero ? this : new([.. Shares.Select(share => share / Shares[^1])]);

    /// <summary>By long division.</summary>
    public (ExactPolynomial Quotient, ExactPolynomial Left) Divided(ExactPolynomial by)
    {
        var rest = Shares.ToArray();
        var quotient = new Exact[Math.Max(1, Degree - by.Degree + 1)];
        for (var at = Degree - by.Degree; at >= 0; at--)
        {
            var share = quotient[at] = rest[at + by.Degree] / by.Shares[^1];
            for (var i = 0; i <= by.Degree; i++)
                rest[at + i] -= share * by.Shares[i];
        }

        return (Trimmed(quotient), Trimmed(rest));
    }

    private static ExactPolynomial Trimmed(IReadOnlyList<Exact> shares)
    {
        var count = shares.Count;
        while (count > 1 && shares[count - 1].IsZero)
            count--;
        return new([.. shares.Take(count)]);
    }
}
