namespace CalmQuill.Store.Lecterns;

/// <summary>A lectern that is open.</summary>
/// <param name="Id">The lectern.</param>
/// <param name="Space">The library its notebook is in.</param>
/// <param name="Notebook">The notebook that is taught from.</param>
/// <param name="Leader">Who teaches.</param>
/// <param name="Page">The page that is shown now; null before the leader showed one.</param>
/// <param name="OpenedAt">Since when.</param>
/// <param name="RoomCode">The code for a screen in the room, enciphered; null while there is none.</param>
public sealed record OpenLectern(Guid Id, Guid Space, Guid Notebook, Guid Leader, Guid? Page, DateTimeOffset OpenedAt, byte[]? RoomCode);
