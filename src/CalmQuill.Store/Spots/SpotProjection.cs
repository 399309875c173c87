using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Store.Documents;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Spots;

/// <summary>Writes the marks, links and headings of a page, and what is to be ticked in its typed words, whenever something came that can have changed them.</summary>
internal static class SpotProjection
{
    public static async Task Write(
        NpgsqlConnection connection,
        DocumentRef page,
        IReadOnlyList<Operation> news,
        Func<Task<List<Operation>>> all,
        CancellationToken cancel
    )
    {
        // Ink alone changes no spot; what moves ink or takes it away does where the page has any, and taking back can bring one back.
        if (
            !news.Any(operation =>
                operation.Change is Change.SpotAdded or Change.SpotSet or Change.EffectSet
                || AnswerRules.IsAnswering(operation.Change)
                || PageTasks.MayBring(operation.Change)
            ) && (news.All(operation => operation.Change is Change.StrokeAdded) || !await HasAny(connection, page, cancel))
        )
            return;
        var document = new PageDocument();
        foreach (var operation in await all())
            document.Apply(operation);
        await Replace(connection, page, [.. document.Spots(), .. PageTasks.Of(document)], cancel);
    }

    private static Task<bool> HasAny(NpgsqlConnection connection, DocumentRef page, CancellationToken cancel) =>
        new NpgsqlCommand("SELECT EXISTS (SELECT 1 FROM page_spots WHERE space_id = @space AND page_id = @id)", connection)
            .Of(page)
            .Row(row => row.GetBoolean(0), cancel);

    private static async Task Replace(NpgsqlConnection connection, DocumentRef page, IReadOnlyList<Spot> spots, CancellationToken cancel)
    {
        await connection.Execute(
            "DELETE FROM page_spots WHERE space_id = @space AND page_id = @page",
            cancel,
            ("page", page.Id),
            ("space", page.Space)
        );
        await connection.Execute(
            "DELETE FROM page_answers WHERE space_id = @space AND page_id = @page",
            cancel,
            ("page", page.Id),
            ("space", page.Space)
        );
        if (spots.Count == 0)
            return;
        await WriteSpots(connection, page, spots, cancel);
        if (spots.Any(spot => spot.Answers.Count > 0))
            await WriteAnswers(connection, page, spots, cancel);
    }

    private static async Task WriteAnswers(
        NpgsqlConnection connection,
        DocumentRef page,
        IReadOnlyList<Spot> spots,
        CancellationToken cancel
    )
    {
        var received = await Received(connection, page, [.. spots.SelectMany(spot => spot.Answers).Select(answer => answer.Id)], cancel);
        await using var copy = await connection.BeginBinaryImportAsync(
            "COPY page_answers (space_id, page_id, spot_id, id, author, at, text, inked, mentions, received) FROM STDIN (FORMAT binary)",
            cancel
        );
        foreach (var (spot, answer) in spots.SelectMany(spot => spot.Answers.Select(answer => (spot, answer))))
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(page.Space, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(page.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(spot.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(answer.Id.ToString(), NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(answer.Author, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(answer.At, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(answer.Text, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(answer.Ink.Length > 0, NpgsqlDbType.Boolean, cancel);
            await copy.WriteAsync(answer.Mentions.ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(received.GetValueOrDefault(answer.Id), NpgsqlDbType.Bigint, cancel);
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>When operations of a page came to the server, UTC milliseconds; a copy's came when its original's did.</summary>
    private static async Task<Dictionary<OpId, long>> Received(
        NpgsqlConnection connection,
        DocumentRef page,
        IReadOnlyCollection<OpId> ids,
        CancellationToken cancel
    ) => (await new NpgsqlCommand(
                """
                SELECT o.replica, o.counter, (extract(epoch FROM o.received_at) * 1000)::bigint FROM unnest(@replicas, @counters) AS asked (replica, counter)
                JOIN documents d ON d.space_id = @space AND d.kind = @kind AND d.id = @id
                JOIN operations o ON o.document_key = d.key AND o.replica = asked.replica AND o.counter = asked.counter
                """,
                connection
            ).Of(page).With(("replicas", ids.Select(id => unchecked((long)id.Replica)).ToArray()), ("counters", ids.Select(id => (long)id.Counter).ToArray())).Rows(row => (Id: new OpId(unchecked((ulong)row.GetInt64(0)), (ulong)row.GetInt64(1)), At: row.GetInt64(2)), cancel)).ToDictionary(one => one.Id, one => one.At);

    private static async Task WriteSpots(NpgsqlConnection connection, DocumentRef page, IReadOnlyList<Spot> spots, CancellationToken cancel)
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            """
            COPY page_spots (page_id, id, space_id, kind, area, mark, note, due, person, target, target_space, target_notebook, target_page, title, level, is_open, created_at, author, done_at, done_by, answers, is_answered)
            FROM STDIN (FORMAT binary)
            """,
            cancel
        );
        foreach (var spot in spots)
        {
            var target = LinkTarget.Read(spot[SpotField.Target]);
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(page.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(spot.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(page.Space, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync((short)spot.Kind, NpgsqlDbType.Smallint, cancel);
            await copy.WriteAsync(
                new[] { spot.Area.Left, spot.Area.Top, spot.Area.Right, spot.Area.Bottom },
                NpgsqlDbType.Array | NpgsqlDbType.Integer,
                cancel
            );
            await copy.WriteAsync(spot[SpotField.Mark], NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(spot[SpotField.Note], NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(spot[SpotField.Due], NpgsqlDbType.Text, cancel);
            await copy.WriteNullable(
                Guid.TryParse(spot[SpotField.Person], out var person) ? person : (Guid?)null,
                NpgsqlDbType.Uuid,
                cancel
            );
            await copy.WriteAsync(spot[SpotField.Target], NpgsqlDbType.Text, cancel);
            await copy.WriteNullable(Known(target?.Space), NpgsqlDbType.Uuid, cancel);
            await copy.WriteNullable(Known(target?.Notebook), NpgsqlDbType.Uuid, cancel);
            await copy.WriteNullable(Known(target?.Page), NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(spot[SpotField.Title], NpgsqlDbType.Text, cancel);
            await copy.WriteAsync((short)(int.TryParse(spot[SpotField.Level], out var level) ? level : 0), NpgsqlDbType.Smallint, cancel);
            await copy.WriteAsync(spot.IsOpen, NpgsqlDbType.Boolean, cancel);
            await copy.WriteAsync(spot.CreatedAt, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(spot.Author, NpgsqlDbType.Uuid, cancel);
            await copy.WriteNullable(spot.DoneAt, NpgsqlDbType.Bigint, cancel);
            await copy.WriteNullable(spot.DoneAt is null ? (Guid?)null : spot.DoneBy, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(spot.Answers.Count, NpgsqlDbType.Integer, cancel);
            await copy.WriteAsync(spot.IsAnswered, NpgsqlDbType.Boolean, cancel);
        }

        await copy.CompleteAsync(cancel);
    }

    private static Guid? Known(Guid? id) => id is { } known && known != Guid.Empty ? known : null;
}
