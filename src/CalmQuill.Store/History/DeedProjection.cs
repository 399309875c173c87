using CalmQuill.Core.History;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using Npgsql;

namespace CalmQuill.Store.History;

/// <summary>Adds what was done to what is told of each quarter of an hour.</summary>
internal static class DeedProjection
{
    /// <summary>Tells of operations that are new, before anything else is brought up to date by them.</summary>
    public static async Task Write(
        NpgsqlConnection connection,
        DocumentRef document,
        IReadOnlyList<Operation> news,
        CancellationToken cancel
    )
    {
        var stood = document.Kind is DocumentKind.Page ? [] : await Standing(connection, document, news, cancel);
        await Add(connection, document, Lines(document, news, stood.Contains), cancel);
    }

    /// <summary>Tells anew of all that was done in a document.</summary>
    public static async Task WriteAll(
        NpgsqlConnection connection,
        DocumentRef document,
        IReadOnlyList<Operation> operations,
        CancellationToken cancel
    ) => await Add(connection, document, Lines(document, operations, _ => false), cancel);

    private static List<Chronicle.Line> Lines(DocumentRef document, IReadOnlyList<Operation> operations, Func<Guid, bool> stood) =>
        Chronicle.Of(document.Id, document.Kind, operations, stood, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds());

    /// <summary>What of the things that operations put somewhere is there already.</summary>
    private static async Task<HashSet<Guid>> Standing(
        NpgsqlConnection connection,
        DocumentRef document,
        IReadOnlyList<Operation> news,
        CancellationToken cancel
    )
    {
        var placed = news.Select(operation => operation.Change)
            .OfType<Change.NodePlaced>()
            .Select(change => change.Node)
            .Distinct()
            .ToArray();
        if (placed.Length == 0)
            return [];
        var found = await new NpgsqlCommand(
            document.Kind is DocumentKind.Library
                ? "SELECT id FROM library_nodes WHERE space_id = @space AND id = ANY(@ids)"
                : "SELECT id FROM notebook_entries WHERE space_id = @space AND notebook_id = @notebook AND id = ANY(@ids)",
            connection
        )
            .With(("space", document.Space), ("notebook", document.Id), ("ids", placed))
            .Rows(row => row.GetGuid(0), cancel);
        return [.. found];
    }

    private static async Task Add(NpgsqlConnection connection, DocumentRef document, List<Chronicle.Line> lines, CancellationToken cancel)
    {
        if (lines.Count == 0)
            return;
        await connection.Execute(
            """
            INSERT INTO deeds (space_id, kind, target, person_id, quarter, deed, things, at)
            SELECT @space, @kind, * FROM unnest(@targets, @people, @quarters, @deeds, @things, @times)
            ON CONFLICT (space_id, kind, target, quarter, person_id, deed)
            DO UPDATE SET things = deeds.things + excluded.things, at = greatest(deeds.at, excluded.at)
            """,
            cancel,
            ("space", document.Space),
            ("kind", (short)document.Kind),
            ("targets", lines.Select(line => line.Target).ToArray()),
            ("people", lines.Select(line => line.Person).ToArray()),
            ("quarters", lines.Select(line => line.Quarter).ToArray()),
            ("deeds", lines.Select(line => (short)line.Deed).ToArray()),
            ("things", lines.Select(line => line.Things).ToArray()),
            ("times", lines.Select(line => line.At).ToArray())
        );
    }
}
