using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Items;

/// <summary>What one outline of a thing is filled with.</summary>
/// <param name="Colour">0xRRGGBBAA, without the layer's opacity.</param>
/// <param name="Grain">The level of the paper's grain; see <see cref="PencilGrain.LevelOf(StrokeSamples, Pen)"/>.</param>
public readonly record struct Coat(uint Colour, int Grain)
{
    /// <summary>Whether some of the paper shows through its grain.</summary>
    public bool LeavesBare => Grain < PencilGrain.Levels - 1;

    /// <summary>A coat that leaves nothing of the paper bare.</summary>
    public static Coat Full(uint colour) => new(colour, PencilGrain.Levels - 1);
}
