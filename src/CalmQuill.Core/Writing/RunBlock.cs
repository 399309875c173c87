namespace CalmQuill.Core.Writing;

/// <summary>Runs that follow each other, few enough to be looked through.</summary>
internal sealed class RunBlock
{
    public List<LetterRun> Runs { get; } = [];

    /// <summary>Its place among the blocks.</summary>
    public int Index { get; set; }

    /// <summary>How many letters in it are seen.</summary>
    public int Seen { get; set; }
}
