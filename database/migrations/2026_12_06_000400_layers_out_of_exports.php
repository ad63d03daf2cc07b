<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Layers that are not for export, and why. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('layers', static fn (Blueprint $table) => $table->string('held_back', 400)->default(''));
    }

    public function down(): void
    {
        Schema::table('layers', static fn (Blueprint $table) => $table->dropColumn('held_back'));
    }
};
