namespace CalmQuill.Store.Spaces;

/// <summary>What a space holds.</summary>
/// <param name="Operations">How many operations.</param>
/// <param name="Bytes">What they come to, as stored.</param>
/// <param name="AssetBytes">What pictures and frozen pages come to.</param>
public sealed record SpaceUsage(long Operations, long Bytes, long AssetBytes);
