namespace CalmQuill.Core.Operations;

/// <summary>Why something was not taken: a code for programs, a sentence for a person.</summary>
public sealed record Refusal(string Code, Sentence Sentence)
{
    public const string ClockAheadCode = "clock-ahead";

    public const string NotAllowedCode = "not-allowed";
}
