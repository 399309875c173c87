namespace CalmQuill.Core.Reckoning;

/// <summary>A formula that cannot be read.</summary>
/// <param name="sentence">Why, for the person who typed it.</param>
/// <param name="at">At which letter it went wrong.</param>
public sealed class FormulaException(Sentence sentence, int at) : Exception(sentence.English)
{
    public Sentence Sentence => sentence;

    public int At => at;
}
