namespace CalmQuill.Core.Papers;

/// <summary>Something that can be printed on a sheet of any size.</summary>
/// <param name="Name">Its name in the text form.</param>
/// <param name="Words">What people call it.</param>
/// <param name="Group">Where it stands among papers to choose from.</param>
/// <param name="Spacing">Its usual spacing, 0.01 mm.</param>
/// <param name="Lay">Draws it.</param>
public sealed record PaperDesign(string Name, string Words, string Group, int Spacing, Action<PaperPen> Lay)
{
    /// <summary>What its spacing is the distance of; empty when it has none to set.</summary>
    public string SpacingWords { get; init; } = "Lines";

    /// <summary>What its count counts; empty when it has none to set.</summary>
    public string CountWords { get; init; } = "";

    public int UsualCount { get; init; } = 1;

    public int MostCount { get; init; } = Paper.MostCount;

    /// <summary>Whether it has words or a header that can be left out.</summary>
    public bool HasWords { get; init; }

    /// <summary>Whether its first line can be set.</summary>
    public bool HasHead { get; init; }

    /// <summary>Where its first line lies unless it is set.</summary>
    public Func<Paper, int> UsualHead { get; init; } = paper => Math.Min(3195, paper.Height * 3195 / 29700);

    /// <summary>What its margin is called; empty when it has none to set.</summary>
    public string MarginWords { get; init; } = "";

    /// <summary>Where its margin lies unless it is set; 0 for none.</summary>
    public Func<Paper, int> UsualMargin { get; init; } = _ => 0;

    /// <summary>Whether it can have a header with a title and a date to fill in.</summary>
    public bool CanBeHeaded { get; init; }

    /// <summary>The paper's colour unless another is chosen.</summary>
    public uint Tint { get; init; } = Paper.White;

    /// <summary>Its own colour of lines; null for one that suits the paper.</summary>
    public uint? LineTint { get; init; }

    /// <summary>Whether it usually lies across.</summary>
    public bool Across { get; init; }
}
