using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Text;
using CalmQuill.Store.Sharing;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Library;

/// <summary>Writes the sections and pages of a notebook, and its summary.</summary>
internal static class NotebookProjection
{
    /// <summary>How many sections a notebook's row names.</summary>
    private const int SectionsNamed = 3;

    public static async Task Write(
        NpgsqlConnection connection,
        Guid space,
        Guid notebook,
        IReadOnlyList<Operation> operations,
        CancellationToken cancel
    )
    {
        var document = new NotebookDocument();
        foreach (var operation in operations)
            document.Apply(operation);
        var entries = document.Outline(withBinned: true);
        var tags = await new NpgsqlCommand("SELECT tags FROM library_nodes WHERE space_id = @space AND id = @notebook", connection)
            .With(("space", space), ("notebook", notebook))
            .Row(row => new TagSet(row.GetFieldValue<Guid[]>(0)), cancel);
        var written = (
            await new NpgsqlCommand(
                "SELECT id, (extract(epoch FROM written_at) * 1000)::bigint FROM documents WHERE space_id = @space AND kind = 3 AND id = ANY(@pages) AND written_at IS NOT NULL",
                connection
            )
                .With(("pages", entries.Where(entry => entry.Kind == NodeKind.Page).Select(entry => entry.Id).ToArray()), ("space", space))
                .Rows(row => (Id: row.GetGuid(0), At: row.GetInt64(1)), cancel)
        ).ToDictionary(row => row.Id, row => row.At);

        await connection.Execute(
            "DELETE FROM notebook_entries WHERE space_id = @space AND notebook_id = @notebook",
            cancel,
            ("notebook", notebook),
            ("space", space)
        );
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                """
                COPY notebook_entries (notebook_id, id, space_id, kind, parent, position, number, title, folded, natural_key, paper, own_tags, inner_tags, tags,
                    created_at, written_at, binned_at, in_bin, planner) FROM STDIN (FORMAT binary)
                """,
                cancel
            )
        )
        {
            for (var i = 0; i < entries.Count; i++)
            {
                var entry = entries[i];
                await copy.StartRowAsync(cancel);
                await copy.WriteAsync(notebook, NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(entry.Id, NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(space, NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync((short)entry.Kind, NpgsqlDbType.Smallint, cancel);
                await copy.WriteAsync(entry.Parent, NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(i, NpgsqlDbType.Integer, cancel);
                await copy.WriteAsync(entry.Number, NpgsqlDbType.Integer, cancel);
                await copy.WriteAsync(entry.Title, NpgsqlDbType.Text, cancel);
                await copy.WriteAsync(Folding.Fold(entry.Title), NpgsqlDbType.Text, cancel);
                await copy.WriteAsync(NaturalOrder.Key(entry.Title), NpgsqlDbType.Text, cancel);
                await copy.WriteAsync(entry.Paper, NpgsqlDbType.Text, cancel);
                await copy.WriteAsync(entry.OwnTags.Ids, NpgsqlDbType.Array | NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(entry.Tags.Ids, NpgsqlDbType.Array | NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(entry.Tags.With(tags).Ids, NpgsqlDbType.Array | NpgsqlDbType.Uuid, cancel);
                await copy.WriteAsync(entry.CreatedAt, NpgsqlDbType.Bigint, cancel);
                await copy.WriteNullable(written.TryGetValue(entry.Id, out var at) ? at : (long?)null, NpgsqlDbType.Bigint, cancel);
                await copy.WriteNullable(entry.BinnedAt, NpgsqlDbType.Bigint, cancel);
                await copy.WriteAsync(entry.InBin, NpgsqlDbType.Boolean, cancel);
                await copy.WriteAsync(
                    entry.Kind == NodeKind.Page ? document.Read(entry.Id, Property.Planner) : "",
                    NpgsqlDbType.Text,
                    cancel
                );
            }

            await copy.CompleteAsync(cancel);
        }

        await Home(connection, space, notebook, document, entries, cancel);
        await BinReceipts.Keep(
            connection,
            space,
            notebook,
            erased: false,
            [.. entries.Where(entry => entry.BinnedAt is not null).Select(entry => entry.Id)],
            cancel
        );
        await BinReceipts.Keep(connection, space, notebook, erased: true, document.Erased(), cancel);
        await Summarise(connection, space, notebook, entries, cancel);
    }

    /// <summary>Pages that no notebook named before are at home here; those that moved from here are at home where they went.</summary>
    private static async Task Home(
        NpgsqlConnection connection,
        Guid space,
        Guid notebook,
        NotebookDocument document,
        IReadOnlyList<NotebookEntry> entries,
        CancellationToken cancel
    )
    {
        await connection.Execute(
            "INSERT INTO page_homes (space_id, page_id, notebook_id) SELECT @space, unnest(@pages), @notebook ON CONFLICT DO NOTHING",
            cancel,
            ("space", space),
            ("notebook", notebook),
            ("pages", entries.Where(entry => entry.Kind == NodeKind.Page).Select(entry => entry.Id).ToArray())
        );
        var moved = document.Moved();
        if (moved.Count == 0)
            return;
        var gone = await connection.Execute(
            """
            UPDATE page_homes h SET notebook_id = m.target
            FROM unnest(@pages, @targets) AS m (page, target)
            WHERE h.space_id = @space AND h.page_id = m.page AND h.notebook_id = @notebook
            """,
            cancel,
            ("space", space),
            ("notebook", notebook),
            ("pages", moved.Select(one => one.Page).ToArray()),
            ("targets", moved.Select(one => one.To).ToArray())
        );
        // Whom this notebook was shared with sees the page no more.
        if (gone > 0)
            await ShareStore.TellIfShared(connection, space, cancel);
    }

    private static async Task Summarise(
        NpgsqlConnection connection,
        Guid space,
        Guid notebook,
        IReadOnlyList<NotebookEntry> entries,
        CancellationToken cancel
    )
    {
        await connection.Execute(
            """
            INSERT INTO notebooks (id, space_id, page_count, sections, size, written_at)
            SELECT @notebook, @space, @pages, @sections,
                coalesce((SELECT d.size FROM documents d WHERE d.space_id = @space AND d.kind = 2 AND d.id = @notebook), 0)
                    -- Page by page, whatever the planner believes of tables that have just grown.
                    + coalesce((
                        SELECT sum(own.size) FROM unnest(@ids) AS page (id)
                        CROSS JOIN LATERAL (SELECT d.size FROM documents d WHERE d.space_id = @space AND d.kind = 3 AND d.id = page.id OFFSET 0) own), 0),
                (SELECT max(e.written_at) FROM notebook_entries e WHERE e.space_id = @space AND e.notebook_id = @notebook AND NOT e.in_bin)
            ON CONFLICT (space_id, id) DO UPDATE
            SET page_count = excluded.page_count, sections = excluded.sections, size = excluded.size, written_at = excluded.written_at, changed_at = now()
            """,
            cancel,
            ("notebook", notebook),
            ("space", space),
            ("ids", entries.Where(entry => entry.Kind == NodeKind.Page).Select(entry => entry.Id).ToArray()),
            ("pages", entries.Count(entry => entry is { Kind: NodeKind.Page, InBin: false })),
            (
                "sections",
                entries
                    .Where(entry => entry is { Kind: NodeKind.Section, InBin: false, Depth: 0, Title.Length: > 0 })
                    .Take(SectionsNamed)
                    .Select(entry => entry.Title)
                    .ToArray()
            )
        );
        await connection.Execute(
            """
            INSERT INTO notebook_people (space_id, notebook_id, person_id, written_at)
            SELECT @space, @notebook, w.person_id, (extract(epoch FROM max(w.written_at)) * 1000)::bigint
            FROM notebook_entries e JOIN page_writers w ON w.space_id = e.space_id AND w.page_id = e.id
            WHERE e.space_id = @space AND e.notebook_id = @notebook
            GROUP BY w.person_id
            ON CONFLICT (space_id, notebook_id, person_id) DO UPDATE SET written_at = greatest(notebook_people.written_at, excluded.written_at)
            """,
            cancel,
            ("notebook", notebook),
            ("space", space)
        );
    }
}
