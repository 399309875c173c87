namespace CalmQuill.Core.Access;

/// <summary>What an invitation into a group says.</summary>
/// <param name="Role">What whoever comes in will be. Owners are made by owners, never by a link.</param>
/// <param name="Uses">How many people it lets in.</param>
/// <param name="Days">How many days it is good for.</param>
/// <param name="Asks">Whether an owner answers before anybody is in.</param>
public sealed record Invitation(Role Role, int Uses, int Days, bool Asks)
{
    public const int MostUses = 1_000;
    public const int MostDays = 365;

    /// <summary>How many of a group may be open at once.</summary>
    public const int MostOpen = 100;

    /// <summary>How many people a group has at most.</summary>
    public const int MostMembers = 500;

    /// <summary>How many groups somebody may look after.</summary>
    public const int MostOwned = 50;

    /// <summary>Null when it may be made, else a sentence that says why not.</summary>
    public Sentence? Problem
    {
        get
        {
            if (Role is not (Role.Reader or Role.Writer))
                return $"An invitation is for a reader or a writer. Owners are made by an owner, once they are in.";
            if (Uses is < 1 or > MostUses)
                return $"An invitation is for 1 to {MostUses} people.";
            return Days is < 1 or > MostDays ? Sentence.Of($"An invitation is good for 1 to {MostDays} days.") : null;
        }
    }

    /// <summary>How it stands with a link.</summary>
    /// <param name="until">When its time is over.</param>
    /// <param name="used">How many came by it.</param>
    /// <param name="most">How many it lets in.</param>
    /// <param name="now">The time.</param>
    public static InvitationState StateOf(DateTimeOffset until, int used, int most, DateTimeOffset now) =>
        now >= until ? InvitationState.Over
        : used >= most ? InvitationState.UsedUp
        : InvitationState.Open;
}
