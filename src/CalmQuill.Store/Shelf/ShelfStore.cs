namespace CalmQuill.Store.Shelf;

/// <summary>What the library shows of each notebook.</summary>
public sealed class ShelfStore(Database database)
{
    /// <summary>How many pages a strip shows.</summary>
    private const int StripLength = 5;

    /// <summary>All notebooks of a space that are not in the bin.</summary>
    public async Task<List<ShelfEntry>> Of(Guid space, CancellationToken cancel)
    {
        var strips = await Strips(space, cancel);
        var people = await People(space, cancel);
        var counts = await database.Command(
            """
            SELECT n.id, count(p.id)::int, max(d.written_at)
            FROM library_nodes n
            LEFT JOIN notebook_pages p ON p.notebook_id = n.id AND p.binned_at IS NULL
            LEFT JOIN documents d ON d.id = p.id AND d.space_id = n.space_id
            WHERE n.space_id = @space AND n.kind = 2 AND NOT n.in_bin
            GROUP BY n.id
            """)
            .With(("space", space))
            .Rows(row => (Id: row.GetGuid(0), Count: row.GetInt32(1), At: row.IsDBNull(2) ? (DateTime?)null : row.GetDateTime(2)), cancel);
        return [.. counts.Select(entry => new ShelfEntry(entry.Id, entry.Count, entry.At, [.. people[entry.Id]], [.. strips[entry.Id]]))];
    }

    private async Task<ILookup<Guid, StripPage>> Strips(Guid space, CancellationToken cancel)
    {
        var rows = await database.Command(
            """
            SELECT notebook_id, id, number, title, last_seq, paper
            FROM (
                SELECT p.notebook_id, p.id, p.number, p.title, p.paper, coalesce(d.last_seq, 0) AS last_seq, d.written_at,
                       row_number() OVER (PARTITION BY p.notebook_id ORDER BY d.written_at DESC NULLS LAST, p.number DESC) AS place
                FROM library_nodes n
                JOIN notebook_pages p ON p.notebook_id = n.id AND p.binned_at IS NULL
                LEFT JOIN documents d ON d.id = p.id AND d.space_id = n.space_id
                WHERE n.space_id = @space AND n.kind = 2 AND NOT n.in_bin
            ) ranked
            WHERE place <= @most
            ORDER BY notebook_id, place
            """)
            .With(("space", space), ("most", StripLength))
            .Rows(row => (Notebook: row.GetGuid(0), Page: new StripPage(row.GetGuid(1), row.GetInt32(2), row.GetString(3), row.GetInt64(4), row.GetString(5))), cancel);
        return rows.ToLookup(row => row.Notebook, row => row.Page);
    }

    private async Task<ILookup<Guid, Guid>> People(Guid space, CancellationToken cancel)
    {
        var rows = await database.Command(
            """
            SELECT p.notebook_id, w.person_id
            FROM library_nodes n
            JOIN notebook_pages p ON p.notebook_id = n.id
            JOIN page_writers w ON w.page_id = p.id
            WHERE n.space_id = @space
            GROUP BY p.notebook_id, w.person_id
            ORDER BY p.notebook_id, max(w.written_at) DESC
            """)
            .With(("space", space)).Rows(row => (Notebook: row.GetGuid(0), Person: row.GetGuid(1)), cancel);
        return rows.ToLookup(row => row.Notebook, row => row.Person);
    }

    /// <summary>The pages of a notebook that are not in the bin, in order.</summary>
    public Task<List<StripPage>> Pages(Guid notebook, CancellationToken cancel) =>
        database.Command("SELECT id, number, title, paper FROM notebook_pages WHERE notebook_id = @notebook AND binned_at IS NULL ORDER BY number")
            .With(("notebook", notebook)).Rows(row => new StripPage(row.GetGuid(0), row.GetInt32(1), row.GetString(2), 0, row.GetString(3)), cancel);

    /// <summary>The title and paper of a page by the notebook it lies in, within a space; null when none knows it.</summary>
    public Task<StripPage?> Page(Guid page, Guid space, CancellationToken cancel) =>
        database.Command(
            """
            SELECT p.id, p.number, p.title, p.paper
            FROM notebook_pages p JOIN documents d ON d.id = p.notebook_id
            WHERE p.id = @page AND d.space_id = @space
            LIMIT 1
            """)
            .With(("page", page), ("space", space)).Row(row => new StripPage(row.GetGuid(0), row.GetInt32(1), row.GetString(2), 0, row.GetString(3)), cancel);

    /// <summary>A notebook's name in its library; empty when it has none.</summary>
    public async Task<string> NotebookName(Guid notebook, Guid space, CancellationToken cancel) =>
        await database.Command("SELECT name FROM library_nodes WHERE space_id = @space AND id = @id").With(("space", space), ("id", notebook)).Row(row => row.GetString(0), cancel) ?? "";
}
