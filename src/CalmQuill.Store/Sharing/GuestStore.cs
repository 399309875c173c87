using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using Npgsql;

namespace CalmQuill.Store.Sharing;

/// <summary>What somebody may see of libraries they are not in. A locked notebook, and what is in the bin, no guest sees.</summary>
public sealed class GuestStore(Database database)
{
    /// <summary>The shares that hold for <c>@person</c> now.</summary>
    private const string Mine = """
        SELECT s.* FROM shares s JOIN spaces l ON l.id = s.space_id AND l.dissolved_at IS NULL
        WHERE (s.until IS NULL OR s.until > now()) AND s.with_whom <= 3
            AND (s.person_id = @person
                OR EXISTS (SELECT 1 FROM members m WHERE m.space_id = s.group_id AND m.person_id = @person)
                OR EXISTS (SELECT 1 FROM share_guests g WHERE g.share_id = s.id AND g.person_id = @person))
        """;

    /// <summary>A notebook, and the folders it lies in, outwards. It is empty for a notebook that is locked or in the bin.</summary>
    private const string Around = """
        around (id, parent) AS (
            SELECT n.id, n.parent FROM library_nodes n
            WHERE n.space_id = @space AND n.id = @notebook AND n.kind = 2 AND NOT n.in_bin
                AND NOT EXISTS (SELECT 1 FROM locks k WHERE k.space_id = n.space_id AND k.notebook_id = n.id)
            UNION
            SELECT n.id, n.parent FROM library_nodes n JOIN around ON n.id = around.parent WHERE n.space_id = @space
        )
        """;

    /// <summary>Whether a notebook <c>n</c>, or one of its pages, is on the paper of one's own <c>p</c>.</summary>
    private const string WrittenOn = """
        (strpos(n.paper, replace(p.id::text, '-', '')) > 0 OR EXISTS (
            SELECT 1 FROM notebook_entries e
            WHERE e.space_id = n.space_id AND e.notebook_id = n.id AND strpos(e.paper, replace(p.id::text, '-', '')) > 0))
        """;

    /// <summary>What a guest is in a notebook; <see cref="Role.None"/> where nothing was shared.</summary>
    public Task<Role> RoleIn(Guid space, Guid notebook, Guid person, CancellationToken cancel) =>
        database
            .Command(
                $"""
                WITH RECURSIVE {Around}, mine AS ({Mine} AND s.space_id = @space)
                SELECT coalesce(max(CASE WHEN mine.writes THEN 2 ELSE 1 END), 0) FROM mine JOIN around ON around.id = mine.node_id
                """
            )
            .With(("space", space), ("notebook", notebook), ("person", person))
            .Row(row => (Role)row.GetInt32(0), cancel);

    /// <summary>Whether there is nothing of a page yet, or <c>@person</c> wrote the first of it.</summary>
    private static string IsNewOrTheirs(string page) =>
        $"""
            coalesce((
                SELECT o.author = @person FROM documents d JOIN operations o ON o.document_key = d.key
                WHERE d.space_id = @space AND d.kind = 3 AND d.id = {page} ORDER BY o.seq LIMIT 1), true)
            """;

    /// <summary>Whether a guest may begin a page that no notebook has named yet: there is nothing of it, or it is their own.</summary>
    public Task<bool> MayBegin(Guid space, Guid page, Guid person, CancellationToken cancel) =>
        database
            .Command(
                $"""
                SELECT EXISTS (SELECT 1 FROM ({Mine} AND s.space_id = @space AND s.writes) mine)
                    AND {IsNewOrTheirs("@page")}
                    AND NOT EXISTS (SELECT 1 FROM page_homes h WHERE h.space_id = @space AND h.page_id = @page)
                """
            )
            .With(("space", space), ("page", page), ("person", person))
            .Row(row => row.GetBoolean(0), cancel);

    /// <summary>Those of some pages that a guest may not name in a notebook: they are at home in another one, or somebody else began them.</summary>
    public async Task<HashSet<Guid>> NotTheirs(
        Guid space,
        Guid notebook,
        IReadOnlyCollection<Guid> pages,
        Guid person,
        CancellationToken cancel
    ) =>
        [
            .. await database
                .Command(
                    $"""
                    SELECT p.id FROM unnest(@pages) AS p (id) LEFT JOIN page_homes h ON h.space_id = @space AND h.page_id = p.id
                    WHERE CASE WHEN h.page_id IS NULL
                        THEN NOT {IsNewOrTheirs("p.id")}
                        ELSE h.notebook_id <> @notebook END
                    """
                )
                .With(("space", space), ("notebook", notebook), ("pages", pages.ToArray()), ("person", person))
                .Rows(row => row.GetGuid(0), cancel),
        ];

    /// <summary>Whether a picture or a file is on a page, lies under one, or is on the cover, of a notebook that a guest sees.</summary>
    public async Task<bool> MaySee(Guid space, Guid asset, Guid person, CancellationToken cancel)
    {
        var notebooks = await database
            .Command(
                $"""
                SELECT n.id FROM library_nodes n
                WHERE n.space_id = @space AND n.kind = 2 AND EXISTS (SELECT 1 FROM ({Mine} AND s.space_id = @space) mine)
                    AND (n.source = @asset OR EXISTS (SELECT 1 FROM library_nodes p WHERE p.space_id = @space AND p.source = @asset AND {WrittenOn})
                        OR EXISTS (SELECT 1 FROM page_assets a JOIN notebook_entries e ON e.space_id = a.space_id AND e.id = a.page_id
                            WHERE a.space_id = @space AND a.asset = @asset AND a.kind = 3 AND e.notebook_id = n.id AND NOT e.in_bin))
                """
            )
            .With(("space", space), ("asset", asset), ("person", person))
            .Rows(row => row.GetGuid(0), cancel);
        foreach (var notebook in notebooks)
        {
            if (await RoleIn(space, notebook, person, cancel) != Role.None)
                return true;
        }

        return false;
    }

    /// <summary>All that was shared with a person out of libraries they are not in, library by library.</summary>
    public async Task<List<SharedSpace>> SharedWith(Guid person, CancellationToken cancel)
    {
        var things = await database
            .Command(
                $"""
                SELECT mine.space_id, CASE WHEN l.personal THEN '' ELSE l.name END, mine.id, mine.node_id, p.id, p.name, p.colour, mine.with_whom, coalesce(g.name, ''), mine.writes, mine.until, l.touch
                FROM ({Mine}) mine JOIN spaces l ON l.id = mine.space_id JOIN people p ON p.id = mine.made_by LEFT JOIN spaces g ON g.id = mine.group_id
                WHERE NOT EXISTS (SELECT 1 FROM members m WHERE m.space_id = mine.space_id AND m.person_id = @person)
                ORDER BY mine.made_at DESC
                """
            )
            .With(("person", person))
            .Rows(
                row =>
                    (
                        Space: row.GetGuid(0),
                        Group: row.GetString(1),
                        Touch: (Touch)row.GetInt16(11),
                        By: new SharedPerson(row.GetGuid(4), row.GetString(5), row.GetString(6)),
                        Thing: new SharedThing(
                            row.GetGuid(2),
                            row.GetGuid(3),
                            row.GetString(5),
                            (ShareWith)row.GetInt16(7),
                            row.GetString(8),
                            row.GetBoolean(9),
                            row.IsDBNull(10) ? null : row.GetFieldValue<DateTimeOffset>(10)
                        )
                    ),
                cancel
            );
        var shared = new List<SharedSpace>();
        foreach (var space in things.GroupBy(one => one.Space))
        {
            var nodes = await Nodes(space.Key, person, cancel);
            var seen = nodes.Select(one => one.Node.Id).ToHashSet();
            var open = space.Where(one => seen.Contains(one.Thing.Node)).ToList();
            if (open.Count == 0)
                continue;
            var notebooks = nodes.Where(one => one.Node.Kind == NodeKind.Notebook).ToList();
            var people = await People(space.Key, [.. notebooks.Select(one => one.Node.Id)], cancel);
            shared.Add(
                new SharedSpace(
                    space.Key,
                    open[0].Group,
                    open[0].Touch,
                    [.. open.Select(one => one.Thing)],
                    [.. nodes.Select(one => one.Node), .. await Papers(space.Key, [.. notebooks.Select(one => one.Node.Id)], cancel)],
                    [.. notebooks.Select(one => new SharedNotebook(one.Node.Id, one.Role, one.Pages, one.WrittenAt))],
                    [.. people.Concat(open.Select(one => one.By)).DistinctBy(one => one.Id)]
                )
            );
        }

        return shared;
    }

    /// <summary>The folders and notebooks of a library that a guest sees; a folder without any is one as well.</summary>
    private Task<List<(LibraryNode Node, Role Role, int Pages, long? WrittenAt)>> Nodes(
        Guid space,
        Guid person,
        CancellationToken cancel
    ) =>
        database
            .Command(
                $"""
                WITH RECURSIVE mine AS ({Mine} AND s.space_id = @space),
                inside (id, role) AS (
                    SELECT n.id, CASE WHEN mine.writes THEN 2 ELSE 1 END FROM library_nodes n JOIN mine ON mine.node_id = n.id
                    WHERE n.space_id = @space AND n.kind IN (1, 2) AND NOT n.in_bin
                    UNION
                    SELECT n.id, inside.role FROM library_nodes n JOIN inside ON inside.id = n.parent
                    WHERE n.space_id = @space AND n.kind IN (1, 2) AND NOT n.in_bin
                )
                SELECT {Columns("n")}, max(inside.role), b.page_count, b.written_at
                FROM inside JOIN library_nodes n ON n.space_id = @space AND n.id = inside.id LEFT JOIN notebooks b ON b.space_id = n.space_id AND b.id = n.id
                WHERE NOT EXISTS (SELECT 1 FROM locks k WHERE k.space_id = n.space_id AND k.notebook_id = n.id)
                GROUP BY n.space_id, n.id, b.space_id, b.id
                ORDER BY n.order_key, n.id
                """
            )
            .With(("space", space), ("person", person))
            .Rows(
                row =>
                    (
                        Node(row),
                        (Role)row.GetInt32(13),
                        row.IsDBNull(14) ? 0 : row.GetInt32(14),
                        row.IsDBNull(15) ? (long?)null : row.GetInt64(15)
                    ),
                cancel
            );

    /// <summary>The papers of one's own that some notebooks are written on.</summary>
    private Task<List<LibraryNode>> Papers(Guid space, Guid[] notebooks, CancellationToken cancel) =>
        database
            .Command(
                $"""
                SELECT {Columns("p")} FROM library_nodes p
                WHERE p.space_id = @space AND p.kind = @paper AND NOT p.in_bin
                    AND EXISTS (SELECT 1 FROM library_nodes n WHERE n.space_id = @space AND n.id = ANY(@notebooks) AND {WrittenOn})
                """
            )
            .With(("space", space), ("notebooks", notebooks), ("paper", (short)NodeKind.Paper))
            .Rows(Node, cancel);

    private static string Columns(string of) =>
        string.Join(
            ", ",
            "id kind parent order_key name colour cover icon paper source category created_at created_by"
                .Split(' ')
                .Select(one => $"{of}.{one}")
        );

    private static LibraryNode Node(NpgsqlDataReader row) =>
        new(
            Id: row.GetGuid(0),
            Kind: (NodeKind)row.GetInt16(1),
            Parent: row.GetGuid(2),
            Order: row.GetString(3),
            Name: row.GetString(4),
            Colour: row.GetString(5),
            Cover: row.GetString(6),
            Icon: row.GetString(7),
            Paper: row.GetString(8),
            Pinned: false,
            Jot: false,
            Tags: TagSet.None,
            Rule: "",
            MergedInto: null,
            LensSpace: null,
            Source: row.IsDBNull(9) ? null : row.GetGuid(9),
            Category: row.GetString(10),
            CreatedAt: row.GetInt64(11),
            CreatedBy: row.GetGuid(12),
            BinnedAt: null,
            InBin: false
        );

    private Task<List<SharedPerson>> People(Guid space, Guid[] notebooks, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT DISTINCT p.id, p.name, p.colour FROM people p JOIN notebook_people w ON w.person_id = p.id
                WHERE w.space_id = @space AND w.notebook_id = ANY(@notebooks) ORDER BY p.name
                """
            )
            .With(("space", space), ("notebooks", notebooks))
            .Rows(row => new SharedPerson(row.GetGuid(0), row.GetString(1), row.GetString(2)), cancel);

    /// <summary>Who was let into something of a library from outside, or wrote there and left, for those who are in it: their ink has a name.</summary>
    public Task<List<SharedPerson>> GuestsOf(Guid space, CancellationToken cancel) =>
        database
            .Command(
                $"""
                SELECT p.id, p.name, p.colour FROM people p
                WHERE NOT EXISTS (SELECT 1 FROM members m WHERE m.space_id = @space AND m.person_id = p.id) AND {FromOutside}
                ORDER BY p.name
                """
            )
            .With(("space", space))
            .Rows(row => new SharedPerson(row.GetGuid(0), row.GetString(1), row.GetString(2)), cancel);

    /// <summary>Those of some people who are in a library, or guests of something in it.</summary>
    public Task<List<SharedPerson>> Among(Guid space, Guid[] ids, CancellationToken cancel) =>
        database
            .Command(
                $"""
                SELECT p.id, p.name, p.colour FROM people p
                WHERE p.id = ANY(@ids) AND (p.id IN (SELECT m.person_id FROM members m WHERE m.space_id = @space) OR {FromOutside})
                ORDER BY p.name
                """
            )
            .With(("space", space), ("ids", ids))
            .Rows(row => new SharedPerson(row.GetGuid(0), row.GetString(1), row.GetString(2)), cancel);

    private const string FromOutside = """
                    (p.id IN (SELECT s.person_id FROM shares s WHERE s.space_id = @space)
                        OR p.id IN (SELECT g.person_id FROM share_guests g JOIN shares s ON s.id = g.share_id WHERE s.space_id = @space)
                        OR p.id IN (SELECT m.person_id FROM members m JOIN shares s ON s.group_id = m.space_id WHERE s.space_id = @space)
                        OR p.id IN (SELECT w.person_id FROM notebook_people w WHERE w.space_id = @space))
        """;
}
