using CalmQuill.Core.Numbers;

namespace CalmQuill.Core.Units;

/// <summary>What something is measured in.</summary>
/// <param name="Name">As it is written: <c>mm</c>, <c>m/s²</c>.</param>
/// <param name="Factor">How many of the coherent unit of the International System it is.</param>
/// <param name="Dimension">Of what kind.</param>
public sealed record Unit(string Name, Exact Factor, Dimension Dimension);
