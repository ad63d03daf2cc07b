<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Ledger\Ledger;
use App\Ledger\Lens;
use App\Ledger\NestingLens;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use VineShelf\Rules\Completion;
use VineShelf\Rules\Joined;
use VineShelf\Rules\Lexer;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Printer;
use VineShelf\Rules\RuleError;
use VineShelf\Scene\Bits;

/** Finding: how a rule can go on, and the hits one by one. */
final class FindController
{
    /** How the rule can go on at the cursor. */
    public function complete(Request $request, Bench $bench): JsonResponse
    {
        $words = mb_substr($request->string('words')->value(), 0, Lexer::LONGEST);

        return new JsonResponse(
            (new Completion($bench->contextOfRules(), static fn (string $rule): int => $bench->find($rule)->rows?->count() ?? 0))->at(
                $words,
                $request->integer('at'),
            ),
        );
    }

    /** The rule with one condition more: as well, instead, or as its opposite. "only" takes the place of a condition on the same field. */
    public function narrow(Request $request, Bench $bench): JsonResponse
    {
        $given = $request->validate(['by' => ['required', 'string', 'max:400'], 'way' => ['required', 'in:only,without,and,or']]);
        try {
            $condition = Parser::parse($given['by'])->tree;
            $words = trim($request->string('words')->value());
            $tree = $words === '' ? null : Parser::parse($words)->tree;
        } catch (RuleError $error) {
            throw new Refused($error->getMessage(), 'words');
        }
        $rule = Printer::print(Joined::by($tree, $condition, $given['way']));

        return new JsonResponse(['words' => $rule, 'count' => $bench->find($rule)->rows?->count() ?? 0]);
    }

    /** The next hit after one, or the one before it, in the order of the ledger's rows from the top down. */
    public function step(Request $request, Bench $bench): JsonResponse
    {
        $ledger = Ledger::asked($bench, $request);
        $found = $ledger->hits();
        $lens = $ledger->lens();
        $total = $lens->hits();
        if ($total === 0) {
            return new JsonResponse(['total' => 0]);
        }
        $next = $this->next($request, $bench, $lens, $found, $total);
        $row = $lens->hit($next) ?? abort(404);

        return new JsonResponse([
            'object' => $bench->scene()->number($row),
            'place' => $next + 1,
            'total' => $total,
            'box' => $bench->facts()->placeFromOrigin($row),
            'hidden' => $bench->shown()->inEffect->rungs()->at($row) === 0,
        ]);
    }

    /** Which hit comes next, counted from 0. */
    private function next(Request $request, Bench $bench, Lens $lens, Bits $found, int $total): int
    {
        $back = $request->integer('way') < 0;
        $at = $bench->scene()->row($request->integer('object'));
        $place = $at === 0 ? null : $lens->hitOf($at);

        return match (true) {
            $place !== null => ($place + ($back ? $total - 1 : 1)) % $total,
            // From an object that is no hit, on to the first one after it where rows stand as in the model.
            $at > 0 && $total === $found->count() && ! $bench->arrangement()->isSorted() && $lens instanceof NestingLens => ($found->rank(
                $at,
            ) +
                ($back ? $total - 1 : 0)) %
                $total,
            default => $back ? $total - 1 : 0,
        };
    }
}
