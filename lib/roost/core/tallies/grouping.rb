# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # Texts grouped when similar (rules.md, tallies): sets of character trigrams of the
      # normalised text, alike when their Jaccard index is at least 0.55, joined transitively;
      # groups by size, each led by the text most like the others. Built on the grouping before,
      # so that only what is new is compared.
      #
      # What it costs is bounded, whatever the texts: of each the first READ characters are
      # compared, with at most MOST_COMPARED others that share its rarest trigrams; and when a
      # grouping has compared MOST_STEPS trigrams it leaves the rest standing alone, to be
      # compared by the one that is built on it.
      class Grouping
        # lead:: the text that stands for it; texts:: all of them, the lead included; count:: of answers; place:: of the
        # first of them, as they came
        Group = Struct.new(:lead, :texts, :count, :place, keyword_init: true)

        ALIKE = 0.55
        READ = 400
        MOST_COMPARED = 60
        MOST_STEPS = 200_000

        # @return [Array<Group>] by size, then in the order in which they came
        attr_reader :groups

        # How many texts have not been compared yet and stand alone for now.
        # @return [Integer]
        attr_reader :rest

        # @param texts [Array<String>] in the order in which they came
        # @param before [Grouping, nil]
        def initialize(texts, before: nil)
          @plains = {}
          @counts = texts.group_by { |text| plains[text] ||= before&.plain(text) || TextMatch.plain(text[0, READ]) }
          @trigrams = {}
          @alike = {}
          @holders = {}
          @written = {}
          keep(before) if before
          @rest = compare(counts.keys - trigrams.keys)
          @holders = @written = nil # as large as all texts, and not needed again
          @groups = gather.freeze
          freeze
        end

        # A list that stands still while more come in.
        def as_they_came = groups.sort_by(&:place)

        # Answers without one like them stand alone.
        def similar? = groups.any? { |group| group.count > 1 }

        protected

        # Normalised text to its trigrams, and to the texts alike with how much.
        attr_reader :trigrams, :alike

        def plain(text) = plains[text]

        private

        attr_reader :counts, :plains, :holders

        # What was compared before stands, as far as it is still there.
        def keep(before)
          @trigrams, @alike = [before.trigrams, before.alike].map { |each| each.select { |plain, _| counts.key?(plain) } }
          return unless trigrams.length < before.trigrams.length

          alike.transform_values! { |others| others.select { |other, _| counts.key?(other) } }
        end

        # @return [Integer] how many are left for the next grouping
        def compare(fresh)
          return 0 if fresh.empty?

          trigrams.each { |plain, own| hold(plain, own) }
          steps = 0
          fresh.each_with_index do |plain, place|
            return fresh.length - place if steps >= MOST_STEPS

            steps += add(plain)
          end
          0
        end

        def hold(plain, own) = own.each { |trigram| (holders[trigram] ||= []) << plain }

        # @return [Integer] trigrams compared
        def add(plain)
          own = Grouping.trigrams(plain)
          others = likely(own)
          others.each do |other|
            index = Grouping.jaccard(own, trigrams[other])
            writable(plain)[other] = writable(other)[plain] = index if index >= ALIKE
          end
          trigrams[plain] = own
          hold(plain, own)
          own.length * (others.length + 1)
        end

        # What is like a text, as this grouping may write to it: the one before goes on with its own.
        def writable(plain) = @written[plain] ||= alike[plain] = alike.fetch(plain, NOTHING).dup

        # Texts that may be alike. Whatever is alike shares at least ALIKE of these trigrams, and so
        # one of any that are more than the rest; the rarest have the fewest other texts.
        # @return [Array<String>]
        def likely(own)
          rarest = own.min_by(own.length - (ALIKE * own.length).ceil + 1) { |trigram| holders.fetch(trigram, NONE).length }
          rarest.each_with_object({}) do |trigram, found|
            holders.fetch(trigram, NONE).each do |other|
              found[other] = true
              return found.keys if found.length == MOST_COMPARED
            end
          end.keys
        end

        NONE = [].freeze
        NOTHING = {}.freeze
        private_constant :NONE, :NOTHING

        def gather
          seen = {}
          found = counts.keys.each_with_index.filter_map { |first, place| group(reach(first, seen), place) unless seen[first] }
          found.sort_by { |group| [-group.count, group.place] }
        end

        # All texts that can be reached from one over texts alike.
        def reach(first, seen)
          seen[first] = true
          joined = [first]
          joined.each do |plain|
            alike.fetch(plain, NOTHING).each_key do |other|
              joined << other unless seen[other]
              seen[other] = true
            end
          end
        end

        def group(joined, place)
          lead = joined.max_by.with_index do |plain, place|
            [alike.fetch(plain, NOTHING).values.sum + counts[plain].length, -place]
          end
          texts = counts.values_at(lead, *(joined - [lead])).flatten
          Group.new(lead: texts.first, texts: texts, count: texts.length, place: place).freeze
        end

        class << self
          # @return [Array<String>] of a text with a space before and after it, each once
          def trigrams(plain)
            padded = " #{plain} "
            return [padded] if padded.length < 3

            padded.each_char.each_cons(3).map(&:join).uniq
          end

          # Shared of all; sets whose sizes differ too much aren't compared.
          def jaccard(one, other)
            small, large = [one.length, other.length].minmax
            return 0.0 if small < ALIKE * large

            shared = (one & other).length
            shared.to_f / (one.length + other.length - shared)
          end
        end
      end
    end
  end
end
