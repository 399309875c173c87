namespace CalmQuill.Documents;

/// <summary>What was to be printed comes to more than one file may hold; the message is a sentence for a person.</summary>
public sealed class PrintBudgetException(Sentence sentence) : Exception(sentence.English)
{
    public Sentence Sentence { get; } = sentence;
}
