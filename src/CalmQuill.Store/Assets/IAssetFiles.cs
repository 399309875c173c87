namespace CalmQuill.Store.Assets;

/// <summary>Where the bytes of assets lie. What an asset is, and who may have it, the database knows; this only keeps and gives.</summary>
public interface IAssetFiles
{
    /// <summary>Keeps some bytes; done when they are safe. The same ones may come again.</summary>
    Task Write(Guid space, Guid asset, byte[] bytes, CancellationToken cancel);

    /// <summary>Null where there are none.</summary>
    Task<byte[]?> Read(Guid space, Guid asset, CancellationToken cancel);

    /// <summary>Forgets some; what is not there is no fault.</summary>
    Task Remove(IReadOnlyList<(Guid Space, Guid Asset)> assets, CancellationToken cancel);
}
