namespace CalmQuill.Store.Faults;

/// <summary>A fault in somebody's browser.</summary>
/// <param name="Build">Which build of the front end it was.</param>
/// <param name="What">What it came to, a sentence.</param>
/// <param name="Words">The fault's own words.</param>
/// <param name="Document">The address of the document it was about; empty when none.</param>
/// <param name="Bytes">The beginning of what could not be read; empty when it was something else.</param>
public sealed record Fault(string Build, string What, string Words, string Document, byte[] Bytes);

/// <summary>The record of faults.</summary>
public sealed class FaultStore(Database database)
{
    /// <summary>Faults are kept so long.</summary>
    private const int DaysKept = 90;

    /// <summary>So many are taken from one person a day.</summary>
    public const int MostADay = 200;

    /// <summary>Writes a fault down, unless its person has told of too many today; false then.</summary>
    public async Task<bool> Add(Guid person, Fault fault, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute("DELETE FROM faults WHERE at < now() - make_interval(days => @days)", cancel, ("days", DaysKept));
        return await connection.Execute(
                """
                INSERT INTO faults (person_id, build, what, words, document, bytes)
                SELECT @person, @build, @what, @words, @document, @bytes
                WHERE (SELECT count(*) FROM faults WHERE person_id = @person AND at > now() - interval '1 day') < @most
                """,
                cancel,
                ("person", person),
                ("build", fault.Build),
                ("what", fault.What),
                ("words", fault.Words),
                ("document", fault.Document),
                ("bytes", fault.Bytes),
                ("most", MostADay)
            ) > 0;
    }

    /// <summary>The latest, newest first.</summary>
    public async Task<List<(DateTimeOffset At, string Person, Fault Fault)>> Latest(int most, CancellationToken cancel) =>
        await database
            .Command(
                """
                SELECT at, people.email, build, what, words, document, bytes
                FROM faults JOIN people ON people.id = person_id ORDER BY key DESC LIMIT @most
                """
            )
            .With(("most", most))
            .Rows(
                row =>
                    (
                        row.GetFieldValue<DateTimeOffset>(0),
                        row.GetString(1),
                        new Fault(row.GetString(2), row.GetString(3), row.GetString(4), row.GetString(5), row.GetFieldValue<byte[]>(6))
                    ),
                cancel
            );
}
