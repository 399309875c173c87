namespace CalmQuill.Core.Access;

/// <summary>What is given to somebody who is not in the library it lies in.</summary>
/// <param name="With">Whom it is for.</param>
/// <param name="Writes">Whether they may write on its pages, too.</param>
/// <param name="Days">For how many days; 0 until it is taken back.</param>
/// <param name="Passphrase">What a link or an address asks for; empty for nothing.</param>
/// <param name="Copies">Whether those without an account may save the pages as a file.</param>
public sealed record Share(ShareWith With, bool Writes, int Days, string Passphrase, bool Copies)
{
    public const int MostDays = 365;
    public const int LeastPassphrase = 6;
    public const int MostPassphrase = 200;

    /// <summary>How many of a library may stand at once.</summary>
    public const int MostOpen = 500;

    /// <summary>How many people may come by one link.</summary>
    public const int MostGuests = 500;

    /// <summary>Null when it may be made, else a sentence that says why not.</summary>
    public Sentence? Problem
    {
        get
        {
            if (!Enum.IsDefined(With))
                return $"Something is shared with a person, a group, by a link, or with everybody.";
            if (Writes && With is ShareWith.Everybody)
                return $"Whoever has no account only reads.";
            if (Copies && With is not ShareWith.Everybody)
                return $"Saving a copy is a matter of pages that everybody may see.";
            if (Days is < 0 or > MostDays)
                return $"Something is shared for 1 to {MostDays} days, or until you take it back.";
            if (Passphrase.Length == 0)
                return null;
            if (With is not (ShareWith.Link or ShareWith.Everybody))
                return $"A passphrase belongs to a link. A person or a group needs none.";
            return Passphrase.Length is < LeastPassphrase or > MostPassphrase
                ? Sentence.Of($"A passphrase has {LeastPassphrase} to {MostPassphrase} characters.")
                : null;
        }
    }
}
