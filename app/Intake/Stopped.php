<?php

declare(strict_types=1);

namespace App\Intake;

/** The person asked the import to stop. */
final class Stopped extends \RuntimeException {}
