namespace CalmQuill.Core.Formulas;

/// <summary>Goes through trees, and works out what they come to from their leaves up, without calls in calls.</summary>
internal static class Fold
{
    /// <param name="root">The tree.</param>
    /// <param name="partsOf">What a node consists of; asked once of each.</param>
    /// <param name="make">What a node comes to, of what its parts came to.</param>
    public static T Up<TNode, T>(TNode root, Func<TNode, IReadOnlyList<TNode>> partsOf, Func<TNode, IReadOnlyList<T>, T> make)
    {
        var open = new Stack<(TNode Node, IReadOnlyList<TNode> Parts, List<T> Made)>();
        open.Push((root, partsOf(root), []));
        while (true)
        {
            var (node, parts, made) = open.Peek();
            if (made.Count < parts.Count)
            {
                var part = parts[made.Count];
                open.Push((part, partsOf(part), []));
                continue;
            }

            open.Pop();
            var done = make(node, made);
            if (!open.TryPeek(out var above))
                return done;
            above.Made.Add(done);
        }
    }

    /// <summary>All nodes of trees, in no particular order.</summary>
    public static IEnumerable<TNode> All<TNode>(IEnumerable<TNode> roots, Func<TNode, IEnumerable<TNode>> partsOf)
    {
        var open = new Stack<TNode>(roots);
        while (open.TryPop(out var node))
        {
            yield return node;
            foreach (var part in partsOf(node))
                open.Push(part);
        }
    }
}
