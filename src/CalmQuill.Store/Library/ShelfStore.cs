using CalmQuill.Core.Library;
using Npgsql;

namespace CalmQuill.Store.Library;

/// <summary>What the library shows of its notebooks beyond what its own document says: how much is in them, who wrote in them and when, their latest pages.</summary>
public sealed class ShelfStore(Database database)
{
    /// <summary>How many pages a strip shows.</summary>
    private const int StripLength = 6;

    /// <summary>So many more are looked at, of which some may be in the bin or locked.</summary>
    private const int SeenBesides = 40;

    /// <summary>The summaries that changed after a moment; all with none. What is locked has none.</summary>
    public Task<List<Summary>> Summaries(Guid space, DateTimeOffset? after, IReadOnlyList<Guid> locked, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT s.id, s.page_count, s.sections, s.size, s.written_at,
                    ARRAY(SELECT p.person_id FROM notebook_people p WHERE p.space_id = s.space_id AND p.notebook_id = s.id ORDER BY p.written_at DESC)
                FROM notebooks s
                WHERE s.space_id = @space AND s.changed_at > @after AND s.id <> ALL(@locked)
                """
            )
            .With(("space", space), ("after", (after ?? DateTimeOffset.UnixEpoch).UtcDateTime), ("locked", locked.ToArray()))
            .Rows(
                row => new Summary(
                    row.GetGuid(0),
                    row.GetInt32(1),
                    row.GetFieldValue<string[]>(2),
                    row.GetInt64(3),
                    row.IsDBNull(4) ? null : row.GetInt64(4),
                    row.GetFieldValue<Guid[]>(5)
                ),
                cancel
            );

    /// <summary>The pages of some notebooks that were written on last, newest first; those never written on come last, in their order.</summary>
    public Task<List<ShownPage>> Strips(Guid space, IReadOnlyList<Guid> notebooks, IReadOnlyList<Guid> locked, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT p.notebook_id, p.id, p.number, p.title, p.paper, coalesce(d.last_seq, 0) + coalesce(n.last_seq, 0), p.written_at
                FROM unnest(@notebooks) AS asked (id)
                CROSS JOIN LATERAL (
                    SELECT e.* FROM notebook_entries e
                    WHERE e.space_id = @space AND e.notebook_id = asked.id AND e.kind = 4 AND NOT e.in_bin AND e.notebook_id <> ALL(@locked)
                    ORDER BY e.written_at DESC NULLS LAST, e.position DESC
                    LIMIT @most
                ) p
                LEFT JOIN documents d ON d.space_id = @space AND d.kind = 3 AND d.id = p.id
                -- What a planner's page shows also depends on its notebook.
                LEFT JOIN documents n ON n.space_id = @space AND n.kind = 2 AND n.id = p.notebook_id AND p.planner <> ''
                ORDER BY p.notebook_id, p.written_at DESC NULLS LAST, p.position DESC
                """
            )
            .With(("space", space), ("notebooks", notebooks.ToArray()), ("locked", locked.ToArray()), ("most", StripLength))
            .Rows(Page, cancel);

    /// <summary>The pages that each member of a space wrote on last, newest first, but for those in notebooks that are locked for who asks.</summary>
    /// <param name="space">The space.</param>
    /// <param name="most">How many of each member.</param>
    /// <param name="locked">The locked notebooks.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<List<(Guid Person, ShownPage Page)>> LastOfMembers(
        Guid space,
        int most,
        IReadOnlyList<Guid> locked,
        CancellationToken cancel
    ) =>
        database
            .Command(
                """
                SELECT p.notebook_id, p.id, p.number, p.title, p.paper, coalesce(d.last_seq, 0) + coalesce(n.last_seq, 0),
                    (extract(epoch FROM p.at) * 1000)::bigint, m.person_id
                FROM members m
                CROSS JOIN LATERAL (
                    SELECT e.*, w.written_at AS at
                    FROM (
                        SELECT page_id, written_at FROM page_writers
                        WHERE person_id = m.person_id AND space_id = @space ORDER BY written_at DESC LIMIT @seen
                    ) w
                    JOIN notebook_entries e ON e.space_id = @space AND e.id = w.page_id AND e.kind = 4 AND NOT e.in_bin AND e.notebook_id <> ALL(@locked)
                    JOIN library_nodes l ON l.space_id = @space AND l.id = e.notebook_id AND NOT l.in_bin
                    ORDER BY w.written_at DESC LIMIT @most
                ) p
                LEFT JOIN documents d ON d.space_id = @space AND d.kind = 3 AND d.id = p.id
                LEFT JOIN documents n ON n.space_id = @space AND n.kind = 2 AND n.id = p.notebook_id AND p.planner <> ''
                WHERE m.space_id = @space
                ORDER BY p.at DESC
                """
            )
            .With(("space", space), ("most", most), ("seen", most + SeenBesides), ("locked", locked.ToArray()))
            .Rows(row => (row.GetGuid(7), Page(row)), cancel);

    /// <summary>The pages of a notebook that are not in the bin, in order; for a guest only those that are at home in it.</summary>
    public Task<List<ShownPage>> Pages(Guid notebook, Guid space, bool atHome, CancellationToken cancel) =>
        PagesOf(notebook, space, atHome, "").Rows(PageOfPlanner, cancel);

    /// <summary>One page of a notebook that is at home in it and not in the bin; null where it is none such.</summary>
    public Task<ShownPage?> PageAtHome(Guid notebook, Guid space, Guid page, CancellationToken cancel) =>
        PagesOf(notebook, space, true, "AND e.id = @page").With(("page", page)).Row(PageOfPlanner, cancel);

    private NpgsqlCommand PagesOf(Guid notebook, Guid space, bool atHome, string only) =>
        database
            .Command(
                $"""
                SELECT e.notebook_id, e.id, e.number, e.title, e.paper, coalesce(d.last_seq, 0) + coalesce(n.last_seq, 0), e.written_at, e.planner,
                    coalesce(d.last_seq, 0)
                FROM notebook_entries e
                LEFT JOIN documents d ON d.space_id = e.space_id AND d.kind = 3 AND d.id = e.id
                LEFT JOIN documents n ON n.space_id = e.space_id AND n.kind = 2 AND n.id = e.notebook_id AND e.planner <> ''
                WHERE e.space_id = @space AND e.notebook_id = @notebook AND e.kind = 4 AND NOT e.in_bin
                    AND (NOT @home OR EXISTS (
                        SELECT 1 FROM page_homes h WHERE h.space_id = @space AND h.page_id = e.id AND h.notebook_id = @notebook))
                    {only}
                ORDER BY e.position
                """
            )
            .With(("notebook", notebook), ("space", space), ("home", atHome));

    /// <summary>The title and paper of a page by the notebook it lies in, within a space; null when none knows it.</summary>
    public Task<ShownPage?> Page(Guid page, Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT e.notebook_id, e.id, e.number, e.title, e.paper, 0::bigint, e.written_at, e.planner, 0::bigint
                FROM notebook_entries e LEFT JOIN page_homes h ON h.space_id = e.space_id AND h.page_id = e.id
                WHERE e.space_id = @space AND e.id = @page AND e.kind = 4
                ORDER BY h.notebook_id = e.notebook_id DESC
                LIMIT 1
                """
            )
            .With(("page", page), ("space", space))
            .Row(PageOfPlanner, cancel);

    /// <summary>The same; a page that no notebook names is an empty one.</summary>
    public async Task<ShownPage> PageOrNew(Guid page, Guid space, CancellationToken cancel) =>
        await Page(page, space, cancel) ?? new ShownPage(Guid.Empty, page, 1, "", "", 0, null);

    /// <summary>The folders and notebooks of a library that are not in the bin, in order.</summary>
    public Task<List<ShelfNode>> Nodes(Guid space, CancellationToken cancel) =>
        database
            .Command(
                "SELECT id, kind, parent, name FROM library_nodes WHERE space_id = @space AND kind IN (1, 2) AND NOT in_bin ORDER BY order_key, id"
            )
            .With(("space", space))
            .Rows(row => new ShelfNode(row.GetGuid(0), (NodeKind)row.GetInt16(1), row.GetGuid(2), row.GetString(3)), cancel);

    /// <summary>The names of the tags that were put on each page of a notebook; pages without any are not among it.</summary>
    public async Task<Dictionary<Guid, string[]>> TagsOf(Guid notebook, Guid space, CancellationToken cancel) =>
        (
            await database
                .Command(
                    """
                    SELECT e.id, ARRAY(
                        SELECT n.name FROM library_nodes n WHERE n.space_id = e.space_id AND n.kind = 5 AND NOT n.in_bin AND n.id = ANY(e.own_tags) ORDER BY n.name)
                    FROM notebook_entries e
                    WHERE e.space_id = @space AND e.notebook_id = @notebook AND e.kind = 4 AND NOT e.in_bin AND e.own_tags <> '{}'
                    """
                )
                .With(("notebook", notebook), ("space", space))
                .Rows(row => (row.GetGuid(0), row.GetFieldValue<string[]>(1)), cancel)
        ).ToDictionary();

    /// <summary>A notebook's name in its library; null when the library has no such notebook.</summary>
    public Task<string?> NotebookName(Guid notebook, Guid space, CancellationToken cancel) =>
        database
            .Command("SELECT name FROM library_nodes WHERE space_id = @space AND id = @id AND kind = 2")
            .With(("space", space), ("id", notebook))
            .Row(row => row.GetString(0), cancel);

    /// <summary>When the server was told that things of the library are in the bin: by that their time there runs, whatever clock a device goes by.</summary>
    public Task<List<BinTime>> BinTimes(Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT id, floor(extract(epoch FROM received_at) * 1000)::bigint FROM bin_receipts
                WHERE space_id = @space AND notebook_id = @library AND NOT erased LIMIT 10000
                """
            )
            .With(("space", space), ("library", Guid.Empty))
            .Rows(row => new BinTime(row.GetGuid(0), row.GetInt64(1)), cancel);

    /// <summary>Sections and pages that were put into the bin themselves and whose time there is not over, latest first.</summary>
    public Task<List<BinnedEntry>> Binned(Guid space, DateTimeOffset now, IReadOnlyList<Guid> locked, CancellationToken cancel) =>
        database
            .Command(
                """
                WITH RECURSIVE inside AS (
                    SELECT e.notebook_id, e.id, e.kind, e.id AS row_id FROM notebook_entries e
                    WHERE e.space_id = @space AND e.binned_at IS NOT NULL
                    UNION ALL
                    SELECT e.notebook_id, e.id, e.kind, i.row_id FROM notebook_entries e
                    JOIN inside i ON e.space_id = @space AND e.notebook_id = i.notebook_id AND e.parent = i.id AND e.binned_at IS NULL
                ), held AS (
                    SELECT notebook_id, row_id, count(*) FILTER (WHERE kind = 4) AS pages FROM inside GROUP BY notebook_id, row_id
                )
                SELECT e.notebook_id, n.name, e.id, e.kind = 4, e.title, e.number, e.paper, coalesce(d.last_seq, 0),
                    floor(extract(epoch FROM r.received_at) * 1000)::bigint, h.pages
                FROM notebook_entries e
                JOIN held h ON h.notebook_id = e.notebook_id AND h.row_id = e.id
                JOIN bin_receipts r ON r.space_id = e.space_id AND r.notebook_id = e.notebook_id AND r.id = e.id AND NOT r.erased
                JOIN spaces s ON s.id = e.space_id
                JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id AND NOT n.in_bin
                LEFT JOIN documents d ON d.space_id = e.space_id AND d.kind = 3 AND d.id = e.id
                WHERE e.space_id = @space AND e.binned_at IS NOT NULL AND e.notebook_id <> ALL(@locked)
                    AND (s.bin_days = 0 OR r.received_at + make_interval(days => s.bin_days) > @now)
                ORDER BY r.received_at DESC
                LIMIT 1000
                """
            )
            .With(("space", space), ("now", now.UtcDateTime), ("locked", locked.ToArray()))
            .Rows(
                row => new BinnedEntry(
                    row.GetGuid(0),
                    row.GetString(1),
                    row.GetGuid(2),
                    row.GetBoolean(3),
                    row.GetString(4),
                    row.GetInt32(5),
                    row.GetString(6),
                    row.GetInt64(7),
                    row.GetInt64(8),
                    (int)row.GetInt64(9)
                ),
                cancel
            );

    private static ShownPage PageOfPlanner(Npgsql.NpgsqlDataReader row) =>
        Page(row) with
        {
            Planner = row.GetString(7),
            Operations = row.GetInt64(8),
        };

    private static ShownPage Page(Npgsql.NpgsqlDataReader row) =>
        new(
            row.GetGuid(0),
            row.GetGuid(1),
            row.GetInt32(2),
            row.GetString(3),
            row.GetString(4),
            row.GetInt64(5),
            row.IsDBNull(6) ? null : row.GetInt64(6)
        );
}
