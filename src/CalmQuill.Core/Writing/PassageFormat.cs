namespace CalmQuill.Core.Writing;

/// <summary>How letters of a passage look in one respect.</summary>
/// <param name="Start">The first.</param>
/// <param name="End">Behind the last; of a trait of paragraphs behind the line break that ends them, which the last one has beyond the text.</param>
/// <param name="Trait">In which respect.</param>
/// <param name="Value">What it is.</param>
public readonly record struct PassageFormat(int Start, int End, Trait Trait, string Value);
