using CalmQuill.Core.Formulas;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>How something was worked out, line by line; beside a line stands what is done to both of its sides next, as <c>| − 3</c>.</summary>
/// <param name="words">How terms are written.</param>
public sealed class Steps(Wording words)
{
    private readonly List<(Notation Line, Notation? Note)> lines = [];

    /// <summary>The lines, and what is noted beside each.</summary>
    public IReadOnlyList<(Notation Line, Notation? Note)> Lines => lines;

    /// <summary>What came out: one line for each letter.</summary>
    public List<Notation> Results { get; } = [];

    /// <summary>Something to be said about it, such as that nothing solves it; null for nothing.</summary>
    public Sentence? Told { get; set; }

    public Wording Words => words;

    public void Add(Notation line)
    {
        // Nothing is said twice.
        if (lines.Count == 0 || !Same(lines[^1].Line, line))
            lines.Add((line, null));
    }

    public void Add(Term left, Term right) => Add(words.Of(left, Sign.Equal, right));

    /// <summary>What is done next, beside the last line.</summary>
    public void Note(string sign, Term by) => Note(sign, Braced(words.Of(by)));

    public void Note(string sign, Notation by)
    {
        if (lines.Count > 0)
            lines[^1] = (lines[^1].Line, new Row([new Sign(sign, SignClass.Ordinary), new Gap(3), .. by.InRow]));
    }

    /// <summary>What is done next where it needs no more than a sign.</summary>
    public void Note(Notation what)
    {
        if (lines.Count > 0)
            lines[^1] = (lines[^1].Line, what);
    }

    /// <summary>That both sides are raised to a power, as <c>| ( )²</c>.</summary>
    public void NoteRaised(Term power) => Note(new Scripts(new Fence("(", new Gap(8), ")"), null, words.Of(power)));

    /// <summary>Nothing came out.</summary>
    public void ResultIsNothing() => Results.Add(new Row([new Name("L"), Sign.Equal, new Sign("∅", SignClass.Ordinary)]));

    private static Notation Braced(Notation by) =>
        by.InRow.Any(item => item is Sign { Class: SignClass.Binary }) ? new Fence("(", by, ")") : by;

    public static bool Same(Notation? one, Notation other) => one is not null && NotationText.Of(one) == NotationText.Of(other);
}
