using Npgsql;

namespace CalmQuill.Store.Rights;

/// <summary>Something after which somebody may see less than before, or more: told to every server that shares the database, in the transaction that made it so.</summary>
/// <param name="Space">A space in which roles or locks changed; or</param>
/// <param name="Session">a sign-in that ended, or for which a lock shut; or</param>
/// <param name="Person">somebody who came into a space, or left one; or</param>
/// <param name="Company">a space that somebody came into, or asks to come into: nobody there may see less, so nobody is disturbed; or</param>
/// <param name="Guests">a space out of which something was shared that guests may see less of.</param>
public readonly record struct RightsChange(Guid? Space, Guid? Session, Guid? Person, Guid? Company = null, Guid? Guests = null)
{
    internal const string Channel = "quill_rights";
    internal const string SpaceWord = "space",
        SessionWord = "session",
        PersonWord = "person",
        CompanyWord = "company",
        GuestsWord = "guests";

    public static RightsChange OfSpace(Guid space) => new(space, null, null);

    public static RightsChange OfSession(Guid session) => new(null, session, null);

    public static RightsChange OfPerson(Guid person) => new(null, null, person);

    public static RightsChange OfCompany(Guid space) => new(null, null, null, space);

    public static RightsChange OfGuests(Guid space) => new(null, null, null, null, space);

    /// <summary>Null when the text is none.</summary>
    public static RightsChange? Read(string text) =>
        text.Split(' ') switch
        {
            [SpaceWord, var id] when Guid.TryParse(id, out var space) => OfSpace(space),
            [SessionWord, var id] when Guid.TryParse(id, out var session) => OfSession(session),
            [PersonWord, var id] when Guid.TryParse(id, out var person) => OfPerson(person),
            [CompanyWord, var id] when Guid.TryParse(id, out var joined) => OfCompany(joined),
            [GuestsWord, var id] when Guid.TryParse(id, out var shared) => OfGuests(shared),
            _ => null,
        };

    public override string ToString() =>
        Space is { } space ? $"{SpaceWord} {space}"
        : Session is { } session ? $"{SessionWord} {session}"
        : Person is { } person ? $"{PersonWord} {person}"
        : Guests is { } guests ? $"{GuestsWord} {guests}"
        : $"{CompanyWord} {Company}";
}

/// <summary>Tells and hears of changed rights through PostgreSQL's notifications, which arrive after the commit.</summary>
public sealed class RightsNews(Database database)
{
    /// <summary>Hears of changes until it is cancelled or the connection breaks. What was told while nobody listened is lost, so who begins to listen looks at everything anew.</summary>
    /// <param name="begun">Called once it listens.</param>
    /// <param name="heard">Called with each change.</param>
    /// <param name="cancel">Ends it.</param>
    public async Task Listen(Action begun, Action<RightsChange> heard, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        connection.Notification += (_, told) =>
        {
            if (RightsChange.Read(told.Payload) is { } change)
                heard(change);
        };
        await connection.Execute($"LISTEN {RightsChange.Channel}", cancel);
        begun();
        while (true)
            await connection.WaitAsync(cancel);
    }
}

internal static class TellingRights
{
    public static Task Tell(this NpgsqlConnection connection, RightsChange change, CancellationToken cancel) =>
        connection.Execute("SELECT pg_notify(@channel, @text)", cancel, ("channel", RightsChange.Channel), ("text", change.ToString()));
}
