using CalmQuill.Core.Operations;

namespace CalmQuill.Store.Documents;

/// <summary>Which document, of what kind, in which space, and whether its data was removed after its time in the bin.</summary>
public sealed record DocumentRef(Guid Space, DocumentKind Kind, Guid Id, bool Erased = false);
