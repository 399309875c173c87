namespace CalmQuill.Core.Ink;

/// <summary>A place on a stroke's line.</summary>
/// <param name="At">How far along, in samples: 3.5 lies halfway between the fourth and the fifth.</param>
/// <param name="X">0.01 mm.</param>
/// <param name="Y">0.01 mm.</param>
public readonly record struct FlatPoint(double At, double X, double Y);
