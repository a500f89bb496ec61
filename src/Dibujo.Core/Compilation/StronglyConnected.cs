namespace Dibujo.Core.Compilation;

/// <summary>Puts fields into an order in which each comes after those on whose values its own value depends.</summary>
internal static class StronglyConnected
{
    /// <summary>Strongly connected components, dependencies first (Tarjan, SIAM J. Comput. 1972, without recursion).</summary>
    /// <param name="dependsOn">For each field, the fields whose values decide whether its own may differ from the saved one.</param>
    internal static List<int[]> Components(IReadOnlyList<int[]> dependsOn)
    {
        var count = dependsOn.Count;
        var index = new int[count];
        var low = new int[count];
        var onStack = new bool[count];
        var path = new Stack<int>();
        var work = new Stack<(int Node, int Next)>();
        var found = new List<int[]>();
        var clock = 0;
        for (var root = 0; root < count; root++)
        {
            if (index[root] != 0)
            {
                continue;
            }

            work.Push((root, 0));
            while (work.Count > 0)
            {
                var (node, next) = work.Pop();
                if (next == 0)
                {
                    index[node] = low[node] = ++clock;
                    path.Push(node);
                    onStack[node] = true;
                }
                else if (dependsOn[node][next - 1] is var done && onStack[done])
                {
                    low[node] = Math.Min(low[node], low[done]);
                }

                if (next < dependsOn[node].Length)
                {
                    work.Push((node, next + 1));
                    if (index[dependsOn[node][next]] == 0)
                    {
                        work.Push((dependsOn[node][next], 0));
                    }
                }
                else if (low[node] == index[node])
                {
                    var members = new List<int>();
                    int member;
                    do
                    {
                        member = path.Pop();
                        onStack[member] = false;
                        members.Add(member);
                    }
                    while (member != node);
                    members.Sort();
                    found.Add([.. members]);
                }
            }
        }

        return found;
    }
}
