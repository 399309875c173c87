using CalmQuill.Core.Assets;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using Npgsql;

namespace CalmQuill.Store.Assets;

/// <summary>Writes which files pages name, so that these stay as long as any of it can be seen again.</summary>
internal static class AssetProjection
{
    /// <summary>What stands for the kind of a page that was frozen to be a paper.</summary>
    public const short Frozen = 0;

    public static Task Write(NpgsqlConnection connection, DocumentRef page, IEnumerable<Operation> news, CancellationToken cancel) =>
        Write(connection, page.Space, (short)page.Kind, page.Id, news, cancel);

    public static async Task Write(
        NpgsqlConnection connection,
        Guid space,
        short kind,
        Guid id,
        IEnumerable<Operation> news,
        CancellationToken cancel
    )
    {
        var named = NamedAssets.In(news).ToArray();
        if (named.Length == 0)
            return;
        await connection.Execute(
            """
            INSERT INTO page_assets (space_id, kind, page_id, asset) SELECT @space, @kind, @page, * FROM unnest(@assets) ON CONFLICT DO NOTHING
            """,
            cancel,
            ("space", space),
            ("kind", kind),
            ("page", id),
            ("assets", named)
        );
    }
}
