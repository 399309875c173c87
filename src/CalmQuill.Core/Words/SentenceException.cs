namespace CalmQuill.Core.Words;

/// <summary>Something cannot be done, and here is why, for a person.</summary>
public sealed class SentenceException(Sentence sentence) : InvalidOperationException(sentence.English)
{
    public Sentence Sentence { get; } = sentence;

    /// <summary>In a browser, where a script gets nothing but this, it says what the sentence consists of as well.</summary>
    public override string Message => OperatingSystem.IsBrowser() ? Sentence.Told : Sentence.English;
}
