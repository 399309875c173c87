using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Changing;

/// <summary>Gathers changes that are laid down together, see <see cref="Laying"/>; what one of them adds can be named by the next.</summary>
public sealed class Piece
{
    /// <summary>No device has this number, so that what a piece adds is nothing that lies on a page.</summary>
    private const ulong Replica = ulong.MaxValue;

    public List<Operation> Operations { get; } = [];

    /// <returns>By which name the others know what it adds.</returns>
    public OpId Add(Change change)
    {
        var id = new OpId(Replica, (ulong)Operations.Count + 1);
        Operations.Add(new Operation(id, Hlc.At(Operations.Count + 1), Guid.Empty, change));
        return id;
    }
}
