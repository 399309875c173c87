namespace CalmQuill.Core.Typesetting;

/// <summary>What typesetting asks of a code point.</summary>
/// <param name="Break">Its class for breaking lines.</param>
/// <param name="Bidi">Its class for directions.</param>
/// <param name="IsWide">Whether it is a wide sign of East Asia.</param>
/// <param name="Opens">Whether it is an opening quotation mark (Pi).</param>
/// <param name="Closes">Whether it is a closing one (Pf).</param>
/// <param name="IsKept">Whether it is not assigned, and kept for pictures.</param>
internal readonly record struct Sign(BreakClass Break, BidiClass Bidi, bool IsWide, bool Opens, bool Closes, bool IsKept);
