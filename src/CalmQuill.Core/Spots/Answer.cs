using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>What somebody said to a mark.</summary>
/// <param name="Id">The operation that made it.</param>
/// <param name="Author">Who said it.</param>
/// <param name="At">When, UTC milliseconds since 1970.</param>
/// <param name="Text">What was typed; may be empty where there is ink.</param>
/// <param name="Mentions">The people who are spoken to.</param>
/// <param name="Ink">What was written by hand: a batch of strokes; empty where there is text alone.</param>
public sealed record Answer(OpId Id, Guid Author, long At, string Text, IReadOnlyList<Guid> Mentions, ReadOnlyMemory<byte> Ink);
