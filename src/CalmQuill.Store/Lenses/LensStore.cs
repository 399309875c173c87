using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;

namespace CalmQuill.Store.Lenses;

/// <summary>Answers filters and lenses over a library's folders, notebooks, sections and pages.</summary>
public sealed class LensStore(Database database)
{
    public const int MostAtOnce = 500;

    /// <summary>What matches is counted up to here; it is then “at least so many”.</summary>
    public const int MostCounted = 10_000;

    private static readonly RuleSql.Columns NotebookColumns = new(
        EntryKind.Notebook,
        "2",
        "n.id",
        "n.parent",
        "n.folded",
        "n.tags",
        "n.created_at",
        "s.written_at",
        "EXISTS (SELECT 1 FROM notebook_people w WHERE w.space_id = n.space_id AND w.notebook_id = n.id AND w.person_id = {0} AND n.id <> ALL(@locked))"
    );

    private static readonly RuleSql.Columns FolderColumns = NotebookColumns with
    {
        Kind = EntryKind.Folder,
        WrittenAt = "NULL::bigint",
        Writers = "false",
    };

    private static readonly RuleSql.Columns EntryColumns = new(
        null,
        "e.kind",
        "e.id",
        "n.parent",
        "e.folded",
        "e.tags",
        "e.created_at",
        "e.written_at",
        "EXISTS (SELECT 1 FROM page_writers w WHERE w.space_id = e.space_id AND w.page_id = e.id AND w.person_id = {0})"
    );

    /// <param name="Rule">The question.</param>
    /// <param name="Order">What the answer is sorted by; the natural order of names breaks ties.</param>
    /// <param name="Descending">Whether it is sorted the other way round.</param>
    /// <param name="Offset">How many to pass over.</param>
    /// <param name="Limit">How many to give, at most <see cref="MostAtOnce"/>.</param>
    /// <param name="Clock">The clock of the person who asks.</param>
    /// <param name="Locked">Notebooks whose inside is not shown.</param>
    public sealed record Question(
        Rule Rule,
        EntryOrder Order,
        bool Descending,
        int Offset,
        int Limit,
        LocalClock Clock,
        IReadOnlyList<Guid> Locked
    );

    /// <summary>What matches and is not in the bin. A section or page is passed over where its notebook matches itself; folders are found only by a rule that asks for them.</summary>
    public async Task<Found> Find(Guid space, Guid person, Question question, CancellationToken cancel)
    {
        var sql = new RuleSql(await Context(space, question.Clock, cancel));
        var branches = new List<string>();
        if (question.Rule.MayMatch(EntryKind.Notebook))
            branches.Add(Notebooks(sql.Condition(question.Rule, NotebookColumns)));
        if (AsksFor(question.Rule, EntryKind.Folder))
            branches.Add(Folders(sql.Condition(question.Rule, FolderColumns)));
        if (question.Rule.MayMatch(EntryKind.Page) || question.Rule.MayMatch(EntryKind.Section))
        {
            // Written out by kind, so that what the rule says of kinds falls away before the database plans.
            var condition = sql.Condition(question.Rule, EntryColumns);
            branches.Add(
                Entries(condition, question.Rule.MayMatch(EntryKind.Notebook) ? sql.Condition(question.Rule, NotebookColumns) : "false")
            );
        }

        if (branches.Count == 0)
            return new Found(0, []);
        var direction = question.Descending ? "DESC" : "ASC";
        var order = question.Order switch
        {
            EntryOrder.Written => $"u.written_at {direction} NULLS LAST,",
            EntryOrder.Created => $"u.created_at {direction},",
            EntryOrder.Kind => $"u.kind {direction},",
            EntryOrder.Size => $"u.size {direction},",
            _ => "",
        };
        var names = question is { Order: EntryOrder.Name, Descending: true } ? "DESC" : "ASC";
        var from = $"""
            ({string.Join(" UNION ALL ", branches)}) u
                (kind, id, notebook_id, parent, title, notebook_name, number, paper, natural_key, created_at, written_at, own_tags, size)
            """;
        (string, object?)[] parameters = [("space", space), ("person", person), ("locked", question.Locked.ToArray()), .. sql.Parameters];
        // Counted at the same time, on another connection.
        var total = database
            .Command($"SELECT count(*) FROM (SELECT 1 FROM {from} LIMIT {MostCounted}) counted")
            .With(parameters)
            .Row(row => row.GetInt64(0), cancel);
        var entries = await database
            .Command(
                $"""
                SELECT u.kind, u.id, u.notebook_id, u.parent, u.title, u.notebook_name, u.number, u.paper, u.created_at, u.written_at, u.own_tags,
                    coalesce((SELECT d.last_seq FROM documents d WHERE d.space_id = @space AND d.kind = 3 AND d.id = u.id AND u.kind = 4), 0)
                FROM {from}
                ORDER BY {order} u.natural_key {names}, u.id
                OFFSET @offset LIMIT @limit
                """
            )
            .With([("offset", question.Offset), ("limit", Math.Min(question.Limit, MostAtOnce)), .. parameters])
            .Rows(
                row => new FoundEntry(
                    (EntryKind)row.GetInt16(0),
                    row.GetGuid(1),
                    row.GetGuid(2),
                    row.GetGuid(3),
                    row.GetString(4),
                    row.GetString(5),
                    row.GetInt32(6),
                    row.GetString(7),
                    row.GetInt64(11),
                    row.GetInt64(8),
                    row.IsDBNull(9) ? null : row.GetInt64(9),
                    row.GetFieldValue<Guid[]>(10)
                ),
                cancel
            );
        return new Found(await total, entries);
    }

    /// <summary>How many things carry each id of a tag themselves: notebooks, sections and pages that are not in the bin.</summary>
    public async Task<Dictionary<Guid, long>> Uses(Guid space, IReadOnlyList<Guid> locked, CancellationToken cancel)
    {
        var rows = await database
            .Command(
                """
                SELECT tag, count(*) FROM (
                    SELECT unnest(n.tags) AS tag FROM library_nodes n WHERE n.space_id = @space AND n.kind = 2 AND NOT n.in_bin
                    UNION ALL
                    SELECT unnest(e.own_tags) FROM notebook_entries e
                    WHERE e.space_id = @space AND e.own_tags <> '{}' AND NOT e.in_bin AND e.notebook_id <> ALL(@locked)
                        AND e.notebook_id <> ALL(ARRAY(SELECT n.id FROM library_nodes n WHERE n.space_id = @space AND n.kind = 2 AND n.in_bin))
                ) used
                GROUP BY tag
                """
            )
            .With(("space", space), ("locked", locked.ToArray()))
            .Rows(row => (Tag: row.GetGuid(0), Count: row.GetInt64(1)), cancel);
        return rows.ToDictionary(row => row.Tag, row => row.Count);
    }

    private static bool AsksFor(Rule rule, EntryKind kind) =>
        rule switch
        {
            Rule.OfKind own => own.Kind == kind,
            Rule.Not not => AsksFor(not.Inner, kind),
            Rule.All all => all.Rules.Any(inner => AsksFor(inner, kind)),
            Rule.Any any => any.Rules.Any(inner => AsksFor(inner, kind)),
            _ => false,
        };

    private static string Notebooks(string condition) =>
        $"""
            SELECT 2::smallint, n.id, n.id, n.parent, n.name, n.name, 0, n.paper, n.natural_key, n.created_at, s.written_at, n.tags, coalesce(s.size, 0)
            FROM library_nodes n LEFT JOIN notebooks s ON s.space_id = n.space_id AND s.id = n.id AND s.id <> ALL(@locked)
            WHERE n.space_id = @space AND n.kind = 2 AND NOT n.in_bin AND {condition}
            """;

    private static string Folders(string condition) =>
        $"""
            SELECT 1::smallint, n.id, n.id, n.parent, n.name, '', 0, '', n.natural_key, n.created_at, NULL::bigint, n.tags, 0::bigint
            FROM library_nodes n
            WHERE n.space_id = @space AND n.kind = 1 AND NOT n.in_bin AND {condition}
            """;

    private static string Entries(string condition, string notebookCondition) =>
        $"""
            SELECT e.kind, e.id, e.notebook_id, n.parent, e.title, n.name, e.number, e.paper, e.natural_key, e.created_at, e.written_at, e.own_tags, 0::bigint
            FROM notebook_entries e
            JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id AND NOT n.in_bin
            LEFT JOIN notebooks s ON s.id = n.id AND s.space_id = n.space_id
            WHERE e.space_id = @space AND NOT e.in_bin AND e.notebook_id <> ALL(@locked) AND {condition} AND NOT ({notebookCondition})
            """;

    /// <summary>The folders, tags and terms that a rule's words refer to.</summary>
    private async Task<RuleContext> Context(Guid space, LocalClock clock, CancellationToken cancel)
    {
        var structure = await database
            .Command(
                "SELECT id, kind, parent, order_key, name, colour, merged_into, created_at, in_bin FROM library_nodes WHERE space_id = @space AND kind IN (1, 5)"
            )
            .With(("space", space))
            .Rows(
                row => new LibraryNode(
                    row.GetGuid(0),
                    (NodeKind)row.GetInt16(1),
                    row.GetGuid(2),
                    row.GetString(3),
                    row.GetString(4),
                    row.GetString(5),
                    "",
                    "",
                    "",
                    false,
                    false,
                    TagSet.None,
                    "",
                    row.IsDBNull(6) ? null : row.GetGuid(6),
                    null,
                    null,
                    "",
                    row.GetInt64(7),
                    Guid.Empty,
                    null,
                    row.GetBoolean(8)
                ),
                cancel
            );
        var terms = await database
            .Command("SELECT terms FROM spaces WHERE id = @space")
            .With(("space", space))
            .Row(row => row.GetString(0), cancel);
        return new RuleContext(structure, terms ?? "", clock);
    }
}
