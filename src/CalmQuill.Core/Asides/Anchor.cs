using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Asides;

/// <summary>What of the page a thing on an aside was written at, so that it goes along when that is moved.</summary>
/// <param name="Stamp">When that was said.</param>
/// <param name="On">The thing on the page.</param>
/// <param name="Lay">Where that lay then: all that had been done to its place, as one step.</param>
public readonly record struct Anchor(Stamp Stamp, OpId On, Transform Lay);
