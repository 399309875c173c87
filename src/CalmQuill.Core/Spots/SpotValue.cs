namespace CalmQuill.Core.Spots;

/// <summary>One field of a spot with what is written into it.</summary>
public readonly record struct SpotValue(SpotField Field, string Value);
