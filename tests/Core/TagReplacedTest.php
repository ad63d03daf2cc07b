<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use VineShelf\Rules\TagReplaced;

/** Rules that name a tag which another one takes the place of. */
final class TagReplacedTest extends TestCase
{
    #[TestWith(['tag="North wing"', 'tag="East"'])]
    #[TestWith(['tag:"north wing"', 'tag="East"'])]
    #[TestWith(['tag:wing kind:part', 'tag="East" and kind:part'])]
    #[TestWith(['not tag:North* or seat', 'not (tag:North* or tag="East") or seat'])]
    #[TestWith(['tag!="North wing"', 'tag!="East"'])]
    #[TestWith(['inside (tag:"North wing" or layer:Roof)', 'inside (tag="East" or layer:Roof)'])]
    // Where another tag is meant too, it stays meant.
    #[TestWith(['tag:north', 'tag:north or tag="East"'])]
    #[TestWith(['kind:part tag:north', 'kind:part and (tag:north or tag="East")'])]
    #[TestWith(['tag!=*north*', 'tag!=*north* and tag!="East"'])]
    // What names it in no way stays as it was written.
    #[TestWith(['  tag:East   seat', '  tag:East   seat'])]
    #[TestWith(['tag:*', 'tag:*'])]
    #[TestWith(['layer:"North wing"', 'layer:"North wing"'])]
    #[TestWith(['tag:(((', 'tag:((('])]
    #[TestWith(['', ''])]
    public function test_the_rule_names_the_tag_that_stays(string $rule, string $after): void
    {
        self::assertSame($after, TagReplaced::in($rule, 'North wing', 'East', ['East', 'North gate', 'Wet']));
    }
}
