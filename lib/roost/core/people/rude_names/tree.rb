# frozen_string_literal: true

module Roost
  module Core
    class RudeNames
      # Words by their letters, found in all readings of a text at once: each sign of it moves those places in the tree on at
      # which the reading could be. So a name takes as many steps as it is long, however many readings it has.
      class Tree
        # What a reading had to take for granted: that letters were drawn out, that it sounds so, how many letters are hidden.
        DRAWN = 1
        SOUND = 2
        HIDDEN = 4
        MOST_HIDDEN = 3
        COSTS = HIDDEN * (MOST_HIDDEN + 1)
        # More than anybody's name needs; only what hides letters comes near.
        MOST_PLACES = 100

        # number:: of the node; kinds:: of the words that end here
        Node = Struct.new(:number, :letter, :depth, :next, :kinds)

        def initialize
          @count = 0
          @root = node(nil, 0)
        end

        # @param kind [Symbol]
        def add(word, kind)
          last = word.each_char.inject(@root) do |node, letter|
            node.next[letter] ||= node(letter, node.depth + 1)
          end
          last.kinds |= [kind]
        end

        # @param readings [Array<Array<Letters::Reading>>]
        # @param kinds [Array<Symbol>] that count
        # @param anywhere [Boolean] whether the word may begin and end anywhere
        # @param worst [Array<Symbol>] kinds that count where it only sounds so
        def in?(readings, kinds, anywhere: false, worst: [])
          places = Array.new(readings.length + 1) { {} }
          readings.each_index do |at|
            places[at][key(@root, 0)] = @root if at.zero? || anywhere
            places[at].first(MOST_PLACES).each do |key, node|
              readings[at].each do |reading|
                step(node, key % COSTS, reading) { |to, cost| places[at + reading.length]&.store(key(to, cost), to) }
              end
            end
          end
          ends = anywhere ? places : [places.last]
          ends.any? { |all| all.any? { |key, node| word?(node, key % COSTS, kinds, worst) } }
        end

        private

        def node(letter, depth) = Node.new(@count += 1, letter, depth, {}, [])

        # A place is a node and what it cost to get there.
        def key(node, cost) = (node.number * COSTS) + cost

        def step(node, cost, reading, &block)
          return hide(node, cost + reading.cost, &block) unless reading.letters

          yield(node, cost | reading.cost | DRAWN) if reading.letters == node.letter
          found = reading.letters.each_char.inject(node) { |each, letter| each&.next&.[](letter) }
          yield(found, cost | reading.cost) if found
        end

        def hide(node, cost)
          return if cost / HIDDEN > MOST_HIDDEN

          node.next.each_value { |each| yield(each, cost) }
        end

        # Of short words none may be drawn out, since many names are short; half of the letters are to be seen.
        def word?(node, cost, kinds, worst)
          return false if node.kinds.empty? || (cost.anybits?(DRAWN) && node.depth < 4) || (cost / HIDDEN) * 2 > node.depth

          node.kinds.intersect?(cost.nobits?(SOUND) ? kinds : kinds & worst)
        end
      end
    end
  end
end
