using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Reads what a row of things means that were read one by one.</summary>
/// <param name="items">The things.</param>
/// <param name="parts">What each was read as.</param>
/// <param name="degrees">Whether angles are in degrees.</param>
internal sealed class RowReader(IReadOnlyList<Notation> items, IReadOnlyList<Read> parts, bool degrees)
{
    private static readonly HashSet<string> OfAngles = ["sin", "cos", "tan", "cot", "sec", "csc"];

    private static readonly Dictionary<string, string> Same = new()
    {
        ["arcsin"] = "asin",
        ["arccos"] = "acos",
        ["arctan"] = "atan",
    };

    private readonly Stack<Term> terms = new();
    private readonly Stack<Waiting> waiting = new();
    private readonly List<Term> list = [];
    private bool wantsTerm = true;
    private int at;

    /// <summary>What was last said in hundredths: 120 + 19 % is 19 % of 120 more.</summary>
    private Term? percent;

    /// <summary>What stands in the bracket of a function that takes several.</summary>
    private IReadOnlyList<Term>? arguments;

    /// <summary>How closely things bind, from the loosest.</summary>
    private enum Binding : byte
    {
        Sum,
        Product,
        Called,
        SideBySide,
        Sign,
    }

    /// <param name="Binding">How closely it binds.</param>
    /// <param name="Operands">How many terms it takes.</param>
    /// <param name="Do">What it makes of them.</param>
    private sealed record Waiting(Binding Binding, int Operands, Func<Term, Term, Term> Do);

    /// <exception cref="FormulaException">It means nothing here.</exception>
    public Read Read()
    {
        for (at = 0; at < items.Count; at++)
            ReadOne(items[at], parts[at]);
        if (items.Count == 0)
            return new Read((Term?)null);
        End();
        return new Read(list.Count == 1 ? list[0] : null) { List = list };
    }

    private void ReadOne(Notation item, Read read)
    {
        // A function or a sum is one whatever is raised or lowered at it.
        switch (item is Scripts { Base: Called or Big } scripts ? scripts.Base : item)
        {
            case Gap:
                break;
            case Sign { Text: "," or ";" } or Sign { Class: SignClass.Relation }:
                End();
                wantsTerm = true;
                break;
            case Sign { Text: "+" } when wantsTerm:
                break;
            case Sign { Text: "−" } when wantsTerm:
                waiting.Push(new Waiting(Binding.Sign, 1, (one, _) => -one));
                break;
            case Sign { Text: "+" }:
                Between(Binding.Sum, (one, other) => one + Percentage(one, other));
                break;
            case Sign { Text: "−" }:
                Between(Binding.Sum, (one, other) => one - Percentage(one, other));
                break;
            case Sign { Text: "·" or "×" or "∗" } or Said { Text: "of" }:
                Between(Binding.Product, (one, other) => one * other);
                break;
            case Sign { Text: "÷" or ":" or "/" }:
                Between(Binding.Product, (one, other) => one / other);
                break;
            case Sign { Text: "%" }:
                Behind(one => one * Term.Of(new Exact(1, 100)));
                percent = terms.Peek();
                break;
            case Sign { Text: "°" }:
                Behind(one => degrees ? one : one * Degree);
                break;
            case Sign { Text: "!" }:
                Behind(one => Factorial(one));
                break;
            case Called called:
                OpenCall(called.Function, read);
                break;
            case Big big:
                OpenBig(big.Text, read);
                break;
            case Sign sign:
                throw new FormulaException($"With “{sign.Text}” nothing is worked out here.", 0);
            case Said said:
                throw new FormulaException($"With “{said.Text}” nothing is worked out here.", 0);
            default:
                Take(item, read);
                break;
        }
    }

    private static Term Degree { get; } = new Term.Symbol("π") / 180;

    private Term Percentage(Term of, Term share) => ReferenceEquals(share, percent) ? of * share : share;

    /// <summary>A term; where another stands before it, it is multiplied with that.</summary>
    private void Take(Notation item, Read read)
    {
        if (item is Fence && read.List.Count > 1 && waiting.TryPeek(out var call) && wantsTerm && call.Binding == Binding.Called)
        {
            // Several arguments of a function.
            arguments = read.List;
            terms.Push(read.List[0]);
            wantsTerm = false;
            return;
        }

        var isCalled =
            at > 0
            && items[at - 1] is Called or Scripts { Base: Called }
            && waiting.TryPeek(out var open)
            && open.Binding == Binding.Called;
        // cos(x)² is the square of the cosine.
        if (isCalled && read is { Base: { } inner, Upper: { } power })
        {
            terms.Push(inner);
            Do();
            terms.Push(Terms.Power(terms.Pop(), power));
            wantsTerm = false;
            return;
        }

        var term = read.Term ?? throw new FormulaException($"Something is missing here, or too much.", 0);
        if (!wantsTerm)
            Between(item is Measured ? Binding.Sign : Binding.SideBySide, (one, other) => one * other);
        terms.Push(term);
        wantsTerm = false;
        // A bracket right behind a function is all that it is called with.
        if (isCalled && item is Fence)
            Do();
    }

    private void OpenCall(string name, Read read)
    {
        if (!wantsTerm)
            Between(Binding.Product, (one, other) => one * other);
        var function = Same.GetValueOrDefault(name, name);
        if (NotationSigns.OverMany.Contains(name) && read.Lower is not null)
            throw new FormulaException($"With “{name}” nothing is worked out here.", 0);
        if (read.Upper is { Number: { } upper } && upper == new Exact(-1, 1))
            throw new FormulaException($"Write the inverse by its name, as “arcsin”.", 0);
        waiting.Push(
            new Waiting(
                Binding.Called,
                1,
                (of, _) =>
                {
                    IReadOnlyList<Term> all =
                        arguments is { } several && several[0].Equals(of) ? several
                        : read.Lower is { } b ? [of, b]
                        : [of];
                    arguments = null;
                    if (degrees && OfAngles.Contains(function) && !of.Parts.Append(of).Any(part => part is Term.Measured))
                        all = [of * Degree];
                    var made = Terms.Call(function, all);
                    if (degrees && function is "asin" or "acos" or "atan")
                        made /= Degree;
                    return read.Upper is { } power ? Terms.Power(made, power) : made;
                }
            )
        );
        wantsTerm = true;
    }

    /// <summary>A sum runs over what is multiplied behind it, an integral up to the letter behind a d.</summary>
    private void OpenBig(string sign, Read read)
    {
        if (!wantsTerm)
            Between(Binding.Product, (one, other) => one * other);
        if (read.Lower is null || read.Upper is null)
            throw new FormulaException($"The sign “{sign}” is worked out between two bounds.", 0);
        var (from, to) = (read.Lower, read.Upper);
        if (sign is "∑" or "∏")
        {
            var over = read.Over ?? throw new FormulaException($"Under “{sign}” stands what it begins with, as “k = 1”.", 0);
            waiting.Push(new Waiting(Binding.Sum, 1, (of, _) => new Term.Bounded(sign, over, of, from, to)));
            wantsTerm = true;
            return;
        }

        // ∫ … dx: what stands between is read by itself.
        var end = Enumerable
            .Range(at + 1, Math.Max(0, items.Count - at - 2))
            .Reverse()
            .FirstOrDefault(i => items[i] is Name { Letter: "d" } && Letters.NameOf(items[i + 1]) is not null);
        if (end == 0 || sign != "∫")
            throw new FormulaException($"An integral ends with “d” and the letter that it runs over.", 0);
        var inner = Enumerable.Range(at + 1, end - at - 1).ToList();
        var body =
            inner.Count == 0
                ? Term.One
                : new RowReader([.. inner.Select(i => items[i])], [.. inner.Select(i => parts[i])], degrees).Read().Term
                    ?? throw new FormulaException($"Something is missing here.", 0);
        terms.Push(new Term.Bounded("∫", Letters.NameOf(items[end + 1])!, body, from, to));
        wantsTerm = false;
        at = end + 1;
    }

    private void Behind(Func<Term, Term> make)
    {
        if (wantsTerm)
            throw new FormulaException($"A number is missing before this.", 0);
        terms.Push(make(terms.Pop()));
    }

    private void Between(Binding binding, Func<Term, Term, Term> make)
    {
        if (wantsTerm)
            throw new FormulaException($"A number is missing before this.", 0);
        while (waiting.TryPeek(out var before) && before.Binding >= binding)
            Do();
        waiting.Push(new Waiting(binding, 2, make));
        wantsTerm = true;
    }

    private void Do()
    {
        var done = waiting.Pop();
        var other = terms.Pop();
        terms.Push(done.Operands == 1 ? done.Do(other, other) : done.Do(terms.Pop(), other));
    }

    private void End()
    {
        if (wantsTerm)
            throw new FormulaException($"Something is missing here.", 0);
        while (waiting.Count > 0)
            Do();
        list.Add(terms.Pop());
    }

    private static Term Factorial(Term of)
    {
        const int most = 300;
        if (of.Number is { IsWhole: true, Sign: >= 0 } number && number <= most)
        {
            var product = Exact.One;
            for (var i = 2; i <= (int)number.Over; i++)
                product *= i;
            return Term.Of(product);
        }

        return Terms.Call("factorial", of);
    }
}
