using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Spots;

/// <summary>A paragraph with a box to be ticked.</summary>
/// <param name="Item">The thing in which it is typed.</param>
/// <param name="Letter">Its first letter.</param>
public readonly record struct TaskPlace(OpId Item, LetterId Letter);
