namespace CalmQuill.Core.Writing;

/// <summary>How letters from one edge to another are to look in one respect. For each letter and trait the latest that reaches over it counts.</summary>
/// <param name="From">Where it begins.</param>
/// <param name="To">Where it ends; before its beginning it reaches over nothing.</param>
/// <param name="Trait">In which respect.</param>
/// <param name="Value">What it is to be; empty for what is usual.</param>
public sealed record Format(Edge From, Edge To, Trait Trait, string Value);
