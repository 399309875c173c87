using CalmQuill.Core.Numbers;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>A term as powers of one letter, each with what stands before it; that may have other letters in it.</summary>
/// <param name="Letter">The letter.</param>
/// <param name="Shares">What stands before each power, from 0 on; the last one is not 0.</param>
public sealed record Polynomial(string Letter, IReadOnlyList<Term> Shares)
{
    /// <summary>The highest power that is solved.</summary>
    public const int MostDegree = 40;

    public int Degree => Shares.Count - 1;

    public Term Leading => Shares[^1];

    /// <summary>The same with plain numbers; null where there are other letters, or roots.</summary>
    public ExactPolynomial? Exact =>
        Shares.All(share => share.Number is not null) ? new ExactPolynomial([.. Shares.Select(share => share.Number!.Value)]) : null;

    public Term Term => Terms.Add(Shares.Select((share, power) => share * Terms.Power(new Symbol(Letter), power == 0 ? Zero : power)));

    public Term this[int power] => power < Shares.Count ? Shares[power] : Zero;

    /// <summary>A term that is multiplied out; null where the letter stands in it otherwise than with a whole power.</summary>
    public static Polynomial? Of(Term term, string letter)
    {
        var shares = new SortedDictionary<int, Term>();
        foreach (var item in term is Sum ? term.Parts : [term])
        {
            var power = 0;
            var rest = new List<Term>();
            foreach (var factor in item is Product ? item.Parts : [item])
            {
                if (!factor.Has(letter))
                    rest.Add(factor);
                else if (factor is Symbol)
                    power++;
                else if (
                    factor is Raised { Base: Symbol, Exponent.Number: { IsWhole: true, Sign: > 0 } exponent }
                    && exponent <= MostDegree
                )
                    power += (int)exponent.Over;
                else
                    return null;
            }

            var share = Terms.Multiply(rest);
            shares[power] = shares.TryGetValue(power, out var has) ? has + share : share;
        }

        var last = shares.LastOrDefault(share => !share.Value.IsZero).Key;
        return new Polynomial(letter, [.. Enumerable.Range(0, last + 1).Select(power => shares.GetValueOrDefault(power, Zero))]);
    }
}
