using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Text;
using CalmQuill.Store.Sharing;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Library;

/// <summary>Writes the rows of a library that an operation changed: moving a folder of two thousand notebooks writes one.</summary>
internal sealed class LibraryProjection
{
    private readonly LibraryCache cache = new();

    public async Task<Action> Write(
        NpgsqlConnection connection,
        Guid space,
        IReadOnlyList<Operation> news,
        long before,
        Func<Task<List<Operation>>> all,
        CancellationToken cancel
    )
    {
        var held = cache.Take(space, before);
        var library = held?.Library ?? new LibraryDocument();
        foreach (var operation in held is null ? await all() : news)
            library.Apply(operation);

        var nodes = library.AllNodes().ToDictionary(node => node.Id);
        var changed = held is null
            ? [.. nodes.Values]
            : nodes.Values.Where(node => !held.Nodes.TryGetValue(node.Id, out var old) || old != node).ToList();
        var gone = held?.Nodes.Keys.Where(id => !nodes.ContainsKey(id)) ?? [];
        var taggedBefore =
            held?.Nodes.Values.Where(node => node.Kind == NodeKind.Notebook).ToDictionary(node => node.Id, node => node.Tags)
            ?? await TagsBefore(connection, space, cancel);

        if (held is null)
            await connection.Execute("DELETE FROM library_nodes WHERE space_id = @space", cancel, ("space", space));
        else
        {
            await connection.Execute(
                "DELETE FROM library_nodes WHERE space_id = @space AND id = ANY(@ids)",
                cancel,
                ("space", space),
                ("ids", changed.Select(node => node.Id).Concat(gone).ToArray())
            );
        }

        if (held is null || news.Any(operation => operation.Change is Change.PropertySet { Property: Property.Binned }))
            await BinReceipts.Keep(
                connection,
                space,
                Guid.Empty,
                erased: false,
                [.. nodes.Values.Where(node => node.BinnedAt is not null).Select(node => node.Id)],
                cancel
            );
        if (
            held is null
            || news.Any(operation => operation.Change is Change.PropertySet { Property: Property.Erased } or Change.NodePlaced)
        )
        {
            // What lies in something erased is erased with it, and no longer when it was taken out.
            if (held is null || library.All(Property.Erased).Count > 0 || news.Any(operation => operation.Change is Change.PropertySet))
                await BinReceipts.Keep(connection, space, Guid.Empty, erased: true, library.ErasedNotebooks(), cancel);
        }

        await Copy(connection, space, changed, cancel);
        var notebooks = changed.Where(node => node.Kind == NodeKind.Notebook).ToList();
        if (notebooks.Count > 0)
        {
            await connection.Execute(
                "INSERT INTO notebooks (space_id, id) SELECT @space, unnest(@ids) ON CONFLICT DO NOTHING",
                cancel,
                ("ids", notebooks.Select(node => node.Id).ToArray()),
                ("space", space)
            );
        }

        foreach (var notebook in notebooks.Where(node => taggedBefore.GetValueOrDefault(node.Id) != node.Tags))
        {
            await connection.Execute(
                """
                UPDATE notebook_entries SET tags = ARRAY(SELECT DISTINCT unnest(inner_tags || @tags) ORDER BY 1)
                WHERE space_id = @space AND notebook_id = @notebook
                """,
                cancel,
                ("notebook", notebook.Id),
                ("space", space),
                ("tags", notebook.Tags.Ids)
            );
        }

        if (held is null || news.Any(operation => operation.Change is Change.PropertySet { Property: Property.BinDays or Property.Terms }))
        {
            await connection.Execute(
                "UPDATE spaces SET bin_days_since = CASE WHEN bin_days = @days THEN bin_days_since ELSE now() END, bin_days = @days, terms = @terms WHERE id = @space",
                cancel,
                ("space", space),
                ("days", library.BinDays),
                ("terms", library.Read(Guid.Empty, Property.Terms))
            );
        }

        if (held is null || gone.Any() || changed.Any(node => Moved(held.Nodes.GetValueOrDefault(node.Id), node)))
            await ShareStore.TellIfShared(connection, space, cancel);
        await WritePersonal(connection, space, library, held is null ? null : news, cancel);
        return () => cache.Put(space, new LibraryCache.Held(before + news.Count, library, nodes));
    }

    /// <summary>Whether something that was there lies elsewhere now, or went into the bin or came out.</summary>
    private static bool Moved(LibraryNode? before, LibraryNode now) =>
        before is not null && (before.Parent != now.Parent || before.InBin != now.InBin);

    /// <summary>Stars and visits of the person whose library this is. In a group's library such operations mean nothing.</summary>
    private static async Task WritePersonal(
        NpgsqlConnection connection,
        Guid space,
        LibraryDocument library,
        IReadOnlyList<Operation>? news,
        CancellationToken cancel
    )
    {
        var starred = news is null
            ? [.. library.All(Property.Starred).Select(star => star.Target)]
            : news.Select(operation => operation.Change)
                .OfType<Change.PropertySet>()
                .Where(set => set.Property == Property.Starred)
                .Select(set => set.Target)
                .Distinct()
                .ToList();
        var visited = news is null
            ? library.Visits.ByUse()
            : news.Select(operation => operation.Change)
                .OfType<Change.Visited>()
                .Distinct()
                .Select(visit => library.Visits.Of(visit.Space, visit.Target)!.Value)
                .ToList();
        if (starred.Count == 0 && visited.Count == 0)
            return;
        var person = await new NpgsqlCommand(
            "SELECT m.person_id FROM members m JOIN spaces s ON s.id = m.space_id WHERE s.id = @space AND s.personal",
            connection
        )
            .With(("space", space))
            .Row(row => row.GetGuid(0), cancel);
        if (person == Guid.Empty)
            return;
        if (starred.Count > 0)
        {
            await connection.Execute(
                "DELETE FROM stars WHERE person_id = @person AND target = ANY(@targets)",
                cancel,
                ("person", person),
                ("targets", starred.ToArray())
            );
            await connection.Execute(
                "INSERT INTO stars (person_id, target) SELECT @person, unnest(@targets) ON CONFLICT DO NOTHING",
                cancel,
                ("person", person),
                ("targets", starred.Where(target => library.Read(target, Property.Starred) == "1").ToArray())
            );
        }

        if (visited.Count == 0)
            return;
        await connection.Execute(
            """
            INSERT INTO visits (person_id, space_id, target, score, last_day)
            SELECT @person, * FROM unnest(@spaces, @targets, @scores, @days)
            ON CONFLICT (person_id, space_id, target) DO UPDATE SET score = excluded.score, last_day = excluded.last_day
            """,
            cancel,
            ("person", person),
            ("spaces", visited.Select(used => used.Space).ToArray()),
            ("targets", visited.Select(used => used.Target).ToArray()),
            ("scores", visited.Select(used => used.Score).ToArray()),
            ("days", visited.Select(used => used.LastDay).ToArray())
        );
    }

    private static async Task<Dictionary<Guid, TagSet>> TagsBefore(NpgsqlConnection connection, Guid space, CancellationToken cancel)
    {
        var rows = await new NpgsqlCommand("SELECT id, tags FROM library_nodes WHERE space_id = @space AND kind = 2", connection)
            .With(("space", space))
            .Rows(row => (Id: row.GetGuid(0), Tags: new TagSet(row.GetFieldValue<Guid[]>(1))), cancel);
        return rows.ToDictionary(row => row.Id, row => row.Tags);
    }

    private static async Task Copy(NpgsqlConnection connection, Guid space, IReadOnlyList<LibraryNode> nodes, CancellationToken cancel)
    {
        if (nodes.Count == 0)
            return;
        await using var copy = await connection.BeginBinaryImportAsync(
            """
            COPY library_nodes (space_id, id, kind, parent, order_key, name, folded, natural_key, colour, cover, icon, paper, pinned, jot, tags, rule,
                merged_into, created_at, created_by, binned_at, in_bin, source, category) FROM STDIN (FORMAT binary)
            """,
            cancel
        );
        foreach (var node in nodes)
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(space, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Id, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync((short)node.Kind, NpgsqlDbType.Smallint, cancel);
            await copy.WriteAsync(node.Parent, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Order, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Name, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(Folding.Fold(node.Name), NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(NaturalOrder.Key(node.Name), NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Colour, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Cover, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Icon, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Paper, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(node.Pinned, NpgsqlDbType.Boolean, cancel);
            await copy.WriteAsync(node.Jot, NpgsqlDbType.Boolean, cancel);
            await copy.WriteAsync(node.Tags.Ids, NpgsqlDbType.Array | NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Rule, NpgsqlDbType.Text, cancel);
            await copy.WriteNullable(node.MergedInto, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.CreatedAt, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(node.CreatedBy, NpgsqlDbType.Uuid, cancel);
            await copy.WriteNullable(node.BinnedAt, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(node.InBin, NpgsqlDbType.Boolean, cancel);
            await copy.WriteNullable(node.Source, NpgsqlDbType.Uuid, cancel);
            await copy.WriteAsync(node.Category, NpgsqlDbType.Text, cancel);
        }

        await copy.CompleteAsync(cancel);
    }
}
