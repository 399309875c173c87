using CalmQuill.Core.Operations;
using CalmQuill.Server.Live;
using CalmQuill.Store.Documents;
using Microsoft.AspNetCore.SignalR;

namespace CalmQuill.Server.Documents;

/// <summary>Stores operations and tells everybody who has the document open.</summary>
public sealed class DocumentWriter(DocumentStore documents, Snapshots snapshots, IHubContext<LiveHub> live, SpaceNews news)
{
    /// <returns>Null when the id belongs to a document of another kind or space.</returns>
    public async Task<AppendResult?> Append(DocumentRef document, IReadOnlyList<Operation> operations, CancellationToken cancel)
    {
        var stored = await documents.Append(document, operations, cancel);
        if (stored is { New.Count: > 0 })
        {
            await live.Clients.Group(LiveHub.GroupOf(document.Id)).SendAsync("stored", document.Id.ToString(), stored.FirstNew, stored.New.Count, OperationCodec.Encode(stored.New), cancel);
            news.Tell(document.Space);
            snapshots.Consider(document.Id, stored);
        }

        return stored;
    }
}
