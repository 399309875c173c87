using CalmQuill.Core.Formulas;

namespace CalmQuill.Core.Algebra;

/// <summary>What came of working a formula out.</summary>
public sealed class Worked
{
    /// <summary>What is written behind a line that was typed, by its place.</summary>
    public Dictionary<int, Notation> Behind { get; } = [];

    /// <summary>What is noted beside a line that was typed, by its place.</summary>
    public Dictionary<int, Notation> Notes { get; } = [];

    /// <summary>What is written below: how it was worked out, and what came out.</summary>
    public List<(Notation Line, Notation? Note, bool IsResult)> Below { get; } = [];

    /// <summary>The letters that it can be worked out for.</summary>
    public IReadOnlyList<string> Letters { get; internal set; } = [];

    /// <summary>The letter that it was worked out for; empty for none.</summary>
    public string For { get; internal set; } = "";

    /// <summary>Something to be said about it; null for nothing.</summary>
    public Sentence? Told { get; internal set; }

    /// <summary>Why it could not be worked out; null where it could.</summary>
    public Sentence? Problem { get; internal set; }
}
