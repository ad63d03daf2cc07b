<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Of what objects are copies, a row for each copying: numbers are never used anew, so it stays true whatever is taken back. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('copyings', static function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('first_no');
            $table->integer('last_no');
            $table->binary('originals');
            $table->primary(['project_id', 'first_no']);
        });
    }

    public function down(): void
    {
        Schema::drop('copyings');
    }
};
