using CalmQuill.Core.Operations;

namespace CalmQuill.Store.Documents;

/// <summary>Which document, of what kind, in which space.</summary>
public sealed record DocumentRef(Guid Space, DocumentKind Kind, Guid Id);
