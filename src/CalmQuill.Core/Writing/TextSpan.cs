namespace CalmQuill.Core.Writing;

/// <summary>Letters side by side that look alike.</summary>
/// <param name="Text">The letters.</param>
/// <param name="Look">How they look; of a paragraph's traits, what the paragraph has that begins with them.</param>
public readonly record struct TextSpan(string Text, Look Look);
